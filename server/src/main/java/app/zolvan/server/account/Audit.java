package app.zolvan.server.account;

import java.util.List;
import org.springframework.stereotype.Service;

/** Record of what was done to accounts, teams and whole projects, in the transaction that did it. */
@Service
public class Audit {
    private static final int LONGEST = 200;

    private final AuditMapper mapper;

    Audit(AuditMapper mapper) {
        this.mapper = mapper;
    }

    /**
     * @param what  in the past: “project deleted”
     * @param about by its name; empty where it is the account itself
     */
    public void note(String login, String what, String about) {
        note(login, what, about, "");
    }

    void note(String login, String what, String about, String address) {
        mapper.insert(cut(login), what, cut(about), address);
    }

    List<AuditMapper.Noted> before(long id, int count) {
        return mapper.before(id, count);
    }

    private static String cut(String text) {
        return text.length() > LONGEST ? text.substring(0, LONGEST) : text;
    }
}
