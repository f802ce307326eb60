package app.zolvan.server.render;

import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * The cores that long work of this process may use: one budget for pictures that are traced and for files that are read. One
 * core is always left to pictures.
 */
@Component
public class Cores {
    private final int all;
    private int free;
    private int files;

    @Autowired
    Cores() {
        this(Runtime.getRuntime().availableProcessors());
    }

    Cores(int all) {
        this.all = Math.max(2, all);
        this.free = this.all;
    }

    /** A share of the budget, to be given back by closing it. */
    public final class Share implements AutoCloseable {
        private final int count;
        private final boolean ofFile;

        private Share(int count, boolean ofFile) {
            this.count = count;
            this.ofFile = ofFile;
        }

        public int count() {
            return count;
        }

        @Override
        public void close() {
            giveBack(this);
        }
    }

    /** All cores that are free, at least one; waits while there is none. */
    synchronized Share forPicture() throws InterruptedException {
        while (free == 0) {
            wait();
        }
        Share share = new Share(free, false);
        free = 0;
        return share;
    }

    /** One core for reading a file; waits while as many files are read as leave pictures one. */
    public synchronized Share forFile() throws InterruptedException {
        while (free == 0 || files == all - 1) {
            wait();
        }
        free--;
        files++;
        return new Share(1, true);
    }

    private synchronized void giveBack(Share share) {
        free += share.count;
        if (share.ofFile) {
            files--;
        }
        notifyAll();
    }
}
