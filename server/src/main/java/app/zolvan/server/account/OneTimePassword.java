package app.zolvan.server.account;

/** Prints a password for one time and, behind a space, its hash; for the start script. */
public final class OneTimePassword {
    private static final int STRENGTH = 10;

    private OneTimePassword() {}

    public static void main(String[] args) {
        Passwords passwords = new Passwords(STRENGTH);
        String word = passwords.oneTime();
        System.out.println(word + " " + passwords.hash(word));
    }
}
