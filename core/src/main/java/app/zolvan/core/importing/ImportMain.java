package app.zolvan.core.importing;

import app.zolvan.core.exchange.ImportException;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.io.Serializable;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;

/** The process that imports run in: takes tasks from standard input, one after the other, until that ends. */
public final class ImportMain {
    private static final long REPORT_EVERY_MS = 100;

    private final DataOutputStream out;
    private double share;
    private String step = "";
    private boolean working;

    private ImportMain(DataOutputStream out) {
        this.out = out;
    }

    /** Takes no arguments. */
    public static void main(String[] args) throws IOException {
        DataOutputStream out = Frames.out(System.out);
        System.setOut(new PrintStream(System.err, true, StandardCharsets.UTF_8)); // what others print is no message
        ImportMain main = new ImportMain(out);
        Thread reporter = new Thread(main::report, "progress");
        reporter.setDaemon(true);
        reporter.start();
        DataInputStream in = Frames.in(System.in);
        while (true) {
            ImportTask<?> task;
            try {
                task = (ImportTask<?>) Frames.read(in);
            } catch (EOFException e) {
                return;
            }
            main.run(task);
        }
    }

    private void run(ImportTask<?> task) throws IOException {
        synchronized (this) {
            share = 0;
            step = "";
            working = true;
        }
        Serializable result = null;
        ImportException refusal = null;
        Exception fault = null;
        try {
            result = task.run(this::at);
        } catch (ImportException e) {
            refusal = e;
        } catch (IOException | RuntimeException | StackOverflowError e) {
            fault = e instanceof Exception x ? x : new IllegalStateException(e);
        }
        synchronized (this) {
            working = false;
            if (result != null) {
                out.writeByte(Frames.RESULT);
                Frames.write(out, result);
            } else if (refusal != null) {
                out.writeByte(Frames.REFUSAL);
                out.writeUTF(refusal.reason());
                writeText(refusal.getMessage());
            } else {
                StringWriter trace = new StringWriter();
                fault.printStackTrace(new PrintWriter(trace));
                out.writeByte(Frames.FAULT);
                writeText(trace.toString());
            }
            out.flush();
        }
    }

    private synchronized void at(double now, String what) {
        share = now;
        step = what;
    }

    /** Tells how far it is, also while nothing moves: who listens may call it off then. */
    private void report() {
        while (true) {
            try {
                Thread.sleep(REPORT_EVERY_MS);
                synchronized (this) {
                    if (working) {
                        out.writeByte(Frames.PROGRESS);
                        out.writeDouble(share);
                        writeText(step);
                        out.flush();
                    }
                }
            } catch (IOException e) {
                System.exit(1); // nobody listens any more
            } catch (InterruptedException e) {
                return;
            }
        }
    }

    private void writeText(String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        out.writeInt(bytes.length);
        out.write(bytes);
    }
}
