package app.zolvan.server;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** Passes connections on to a port of this machine, and can be shut: then it is as if nobody were there. */
final class Valve implements AutoCloseable {
    private final int to;
    private final int port;
    private final Set<Socket> open = ConcurrentHashMap.newKeySet();
    private volatile ServerSocket door;

    Valve(int to) throws IOException {
        this.to = to;
        this.door = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        this.port = door.getLocalPort();
        accept(door);
    }

    int port() {
        return port;
    }

    /** Ends all connections and lets nobody in. */
    void shut() throws IOException {
        door.close();
        for (Socket s : open) {
            s.close();
        }
    }

    void open() throws IOException {
        ServerSocket again = new ServerSocket();
        again.setReuseAddress(true);
        again.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
        door = again;
        accept(again);
    }

    private void accept(ServerSocket at) {
        run(() -> {
            while (!at.isClosed()) {
                Socket in = at.accept();
                Socket out = new Socket(InetAddress.getLoopbackAddress(), to);
                open.add(in);
                open.add(out);
                run(() -> pass(in, out));
                run(() -> pass(out, in));
            }
        });
    }

    private interface Work {
        void run() throws IOException;
    }

    private static void run(Work work) {
        Thread t = new Thread(() -> {
            try {
                work.run();
            } catch (IOException e) {
                // shut
            }
        });
        t.setDaemon(true);
        t.start();
    }

    private static void pass(Socket from, Socket to) throws IOException {
        try (from;
                to) {
            InputStream in = from.getInputStream();
            OutputStream out = to.getOutputStream();
            byte[] buffer = new byte[1 << 16];
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                out.write(buffer, 0, n);
                out.flush();
            }
        }
    }

    @Override
    public void close() throws IOException {
        shut();
    }
}
