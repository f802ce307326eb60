package app.zolvan.server.model;

import app.zolvan.server.asset.AssetService;
import app.zolvan.server.asset.Spool;
import app.zolvan.server.job.Job;
import app.zolvan.server.job.JobService;
import java.io.IOException;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Takes uploaded files in: their bytes and the job that imports them are there together, or neither is. */
@Service
class ImportService {
    private final AssetService assets;
    private final JobService jobs;

    ImportService(AssetService assets, JobService jobs) {
        this.assets = assets;
        this.jobs = jobs;
    }

    /**
     * @param kind    the work that the file is for: {@link ImportWork}, {@link MaterialsWork},
     *                {@link UpdateWork} or {@link AddModelWork}
     * @param project the project that gets the file's triangles instead of its own, or its materials; null to make a new
     *                one
     */
    @Transactional
    Job receive(UUID account, String kind, @Nullable UUID project, String name, Spool body) throws IOException {
        String sha256 = assets.store(body, AssetService.BINARY);
        return jobs.submit(account, kind, name, sha256, project);
    }
}
