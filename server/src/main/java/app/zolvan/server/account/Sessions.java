package app.zolvan.server.account;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.UUID;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Service;

/** Open sessions of accounts, in the database. Ending a session ends its streams of events in every process, too. */
@Service
class Sessions {
    static final String ADDRESS = "zolvan.address";
    static final String PROGRAM = "zolvan.program";
    private final FindByIndexNameSessionRepository<? extends Session> repository;
    private final OpenStreams streams;

    Sessions(FindByIndexNameSessionRepository<? extends Session> repository, OpenStreams streams) {
        this.repository = repository;
        this.streams = streams;
    }

    /**
     * @param id      no secret: the row's, not the cookie's
     * @param program as the browser calls itself
     */
    record Open(String id, Instant since, Instant seen, String address, String program, boolean own) {}

    /** @param own the id of the session that asks; null for none */
    List<Open> of(Account account, String own) {
        return repository.findByPrincipalName(account.login()).values().stream()
                .map(s -> new Open(
                        shown(s),
                        s.getCreationTime(),
                        s.getLastAccessedTime(),
                        text(s, ADDRESS),
                        text(s, PROGRAM),
                        s.getId().equals(own)))
                .sorted(Comparator.comparing(Open::seen).reversed())
                .toList();
    }

    /** Ends all of an account's sessions but one. */
    void endOthers(UUID account, String login, String own) {
        repository.findByPrincipalName(login).values().stream()
                .filter(s -> !s.getId().equals(own))
                .forEach(s -> repository.deleteById(s.getId()));
        closeStreams(account);
    }

    /** Ends one of an account's sessions. */
    void end(Account account, String id) {
        repository.findByPrincipalName(account.login()).values().stream()
                .filter(s -> shown(s).equals(id))
                .forEach(s -> repository.deleteById(s.getId()));
        closeStreams(account.id());
    }

    /** Ends an account's streams of events; pages whose session goes on open theirs again. */
    void closeStreams(UUID account) {
        streams.close(account);
    }

    /** A session's id is what its cookie holds; this names it without letting anybody in. */
    private static String shown(Session s) {
        return UUID.nameUUIDFromBytes(s.getId().getBytes(StandardCharsets.UTF_8))
                .toString();
    }

    private static String text(Session s, String attribute) {
        return s.getAttribute(attribute) instanceof String t ? t : "";
    }
}
