package app.zolvan.server.job;

/** Thrown by work that can't go on before the designer has answered; it is run again from the start then. */
public final class Asking extends Exception {
    private final transient JobQuestion question;

    public Asking(JobQuestion question) {
        super("the designer is asked");
        this.question = question;
    }

    JobQuestion question() {
        return question;
    }
}
