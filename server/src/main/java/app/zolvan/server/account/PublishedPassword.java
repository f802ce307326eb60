package app.zolvan.server.account;

/** For the start script: ends with 0 where a kept password is a given one, and with 1 where it is not. */
final class PublishedPassword {
    private PublishedPassword() {}

    /** Arguments: what is kept of the account's password, and the password that everybody knows. */
    public static void main(String[] args) {
        System.exit(new Passwords(4).matches(args[1], args[0]) ? 0 : 1);
    }
}
