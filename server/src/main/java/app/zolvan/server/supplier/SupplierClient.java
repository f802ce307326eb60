package app.zolvan.server.supplier;

import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.problem.Problem;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;

/**
 * Fetches from a supplier's catalogue over HTTP, at the one address that the installation was started with. An answer has to come
 * whole within seconds and within its size; one that fails is asked for once more.
 */
@Component
class SupplierClient {
    private static final Duration CONNECTING = Duration.ofSeconds(2);
    private static final int TRIES = 2;

    private final HttpClient client = HttpClient.newBuilder()
            .connectTimeout(CONNECTING)
            .followRedirects(HttpClient.Redirect.NEVER)
            .build();
    private final String address;
    private final Duration patience;

    @Autowired
    SupplierClient(ZolvanProperties properties) {
        this(properties.supplier() == null ? "" : properties.supplier(), Duration.ofSeconds(5));
    }

    SupplierClient(String address, Duration patience) {
        this.address = address;
        this.patience = patience;
    }

    boolean isThere() {
        return !address.isEmpty();
    }

    /**
     * @param path of the catalogue, with its query
     * @param most bytes of an answer
     */
    byte[] fetch(String path, int most) {
        if (!isThere()) {
            throw silent();
        }
        Problem last = silent();
        for (int i = 0; i < TRIES; i++) {
            try {
                return once(path, most);
            } catch (Problem e) {
                if (e.status() != HttpStatus.BAD_GATEWAY) {
                    throw e;
                }
                last = e;
            }
        }
        throw last;
    }

    private byte[] once(String path, int most) {
        HttpRequest request = HttpRequest.newBuilder(URI.create(address + path))
                .timeout(patience)
                .build();
        CompletableFuture<byte[]> answer = client.sendAsync(request, HttpResponse.BodyHandlers.ofInputStream())
                .thenApplyAsync(r -> read(r, most));
        try {
            return answer.get(patience.toMillis(), TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw silent();
        } catch (ExecutionException e) {
            throw e.getCause() instanceof Problem p ? p : silent();
        } catch (TimeoutException e) {
            answer.cancel(true);
            throw silent();
        }
    }

    private static byte[] read(HttpResponse<InputStream> r, int most) {
        try (InputStream in = r.body()) {
            if (r.statusCode() == HttpStatus.NOT_FOUND.value()) {
                throw Problem.notFound("article");
            }
            if (r.statusCode() != HttpStatus.OK.value()) {
                throw silent();
            }
            byte[] all = in.readNBytes(most + 1);
            if (all.length > most) {
                throw Problem.of(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        "supplier-odd",
                        "The supplier sent more than Zolvan takes. Choose another sample, or ask the supplier for a smaller picture.");
            }
            return all;
        } catch (IOException e) {
            throw silent();
        }
    }

    static Problem silent() {
        return Problem.of(
                HttpStatus.BAD_GATEWAY,
                "supplier-silent",
                "The supplier’s catalogue does not answer. Try again in a moment; what is in the project stays.");
    }

    static Problem odd() {
        return Problem.of(
                HttpStatus.UNPROCESSABLE_CONTENT,
                "supplier-odd",
                "The supplier’s answer can’t be understood. Choose another sample, or tell the supplier.");
    }
}
