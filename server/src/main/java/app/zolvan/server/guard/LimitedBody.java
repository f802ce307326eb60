package app.zolvan.server.guard;

import app.zolvan.server.problem.TooLongException;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import java.io.IOException;

/** A request whose body ends with an error where it goes on beyond a limit, whatever length was announced. */
final class LimitedBody extends HttpServletRequestWrapper {
    private final long most;

    LimitedBody(HttpServletRequest request, long most) {
        super(request);
        this.most = most;
    }

    @Override
    public ServletInputStream getInputStream() throws IOException {
        ServletInputStream in = super.getInputStream();
        return new ServletInputStream() {
            private long left = most;

            @Override
            public int read() throws IOException {
                int b = in.read();
                count(b < 0 ? 0 : 1);
                return b;
            }

            @Override
            public int read(byte[] into, int from, int length) throws IOException {
                int n = in.read(into, from, length);
                count(Math.max(0, n));
                return n;
            }

            private void count(int n) throws TooLongException {
                left -= n;
                if (left < 0) {
                    throw new TooLongException(most);
                }
            }

            @Override
            public boolean isFinished() {
                return in.isFinished();
            }

            @Override
            public boolean isReady() {
                return in.isReady();
            }

            @Override
            public void setReadListener(ReadListener listener) {
                in.setReadListener(listener);
            }
        };
    }
}
