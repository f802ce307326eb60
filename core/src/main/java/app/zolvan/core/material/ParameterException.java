package app.zolvan.core.material;

/** A parameter was given a value it can't take. The message is a sentence for the designer. */
public final class ParameterException extends IllegalArgumentException {
    private final String field;

    public ParameterException(String field, String sentence) {
        super(sentence);
        this.field = field;
    }

    /** The OpenPBR name of the parameter. */
    public String field() {
        return field;
    }
}
