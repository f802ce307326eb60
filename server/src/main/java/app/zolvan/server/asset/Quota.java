package app.zolvan.server.asset;

import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.problem.Problem;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;

/** Bytes that an account's projects may hold. */
@Service
public class Quota {
    private final AssetMapper mapper;
    private final long most;

    Quota(AssetMapper mapper, ZolvanProperties properties) {
        this.mapper = mapper;
        most = properties.accountLimit().toBytes();
    }

    /**
     * @param more bytes about to be stored; negative where nobody has said how many
     * @throws Problem where they do not fit beside what the account's projects hold
     */
    public void require(UUID account, long more) {
        if (mapper.heldBy(account) + Math.max(0, more) > most) {
            throw Problem.of(
                    HttpStatus.CONTENT_TOO_LARGE,
                    "account-full",
                    "Your projects hold " + (most >> 20)
                            + " MB, the most an account may. Delete a project that you no longer need, or ask whoever looks"
                            + " after Zolvan.");
        }
    }
}
