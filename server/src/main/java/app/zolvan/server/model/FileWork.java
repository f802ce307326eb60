package app.zolvan.server.model;

import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.JobWork;

/** Work on an uploaded file, which is let go of where nothing made of it needs it. */
abstract class FileWork implements JobWork {
    protected final AssetService assets;

    FileWork(AssetService assets) {
        this.assets = assets;
    }

    @Override
    public void ended() {
        assets.deleteUnused();
    }
}
