package app.zolvan.server.model;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelReader.Progress;
import app.zolvan.core.importing.ImportMain;
import app.zolvan.core.importing.ImportProcess;
import app.zolvan.core.importing.ImportTask;
import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.render.Cores;
import java.io.File;
import java.io.IOException;
import java.io.Serializable;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.InitializingBean;
import org.springframework.stereotype.Component;

/**
 * The processes in which strangers' files are read. One waits warm; it is replaced after a failure and after so many files.
 * A second runs while both job threads import.
 */
@Component
class ImportProcesses implements InitializingBean, DisposableBean {
    private static final Logger LOG = LoggerFactory.getLogger(ImportProcesses.class);
    private static final int FILES = 50;
    private static final String FAT_JAR_LAUNCHER = "org.springframework.boot.loader.launch.PropertiesLauncher";

    private final ZolvanProperties properties;
    private final Cores cores;
    private @Nullable ImportProcess waiting;
    private boolean ended;

    ImportProcesses(ZolvanProperties properties, Cores cores) {
        this.cores = cores;
        this.properties = properties;
    }

    @Override
    public void afterPropertiesSet() throws IOException {
        UploadedFile.clearAway();
    }

    /**
     * Has a file read.
     *
     * @param progress may throw to call it off
     */
    <R extends Serializable> R run(ImportTask<R> task, Progress progress) throws ImportException, IOException {
        Cores.Share core = core();
        try {
            ImportProcess process = take();
            try {
                return process.run(task, progress, properties.imports().longest());
            } finally {
                giveBack(process);
            }
        } finally {
            core.close();
        }
    }

    private Cores.Share core() throws IOException {
        try {
            return cores.forFile();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("the process ends", e);
        }
    }

    private ImportProcess take() throws IOException {
        synchronized (this) {
            if (waiting != null && waiting.isUsable()) {
                ImportProcess taken = waiting;
                waiting = null;
                return taken;
            }
        }
        return start();
    }

    private ImportProcess start() throws IOException {
        Path log = properties.imports().log();
        if (log.getParent() != null) {
            Files.createDirectories(log.getParent());
        }
        long megabytes = properties.imports().memory().toMegabytes();
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        String classes = System.getProperty("java.class.path");
        boolean fat = !classes.contains(File.pathSeparator)
                && ImportMain.class
                        .getProtectionDomain()
                        .getCodeSource()
                        .getLocation()
                        .toString()
                        .contains("!");
        return fat
                ? ImportProcess.start(
                        List.of(java, "-Dloader.main=" + ImportMain.class.getName(), "-cp", classes),
                        FAT_JAR_LAUNCHER,
                        megabytes,
                        log)
                : ImportProcess.start(List.of(java, "-cp", classes), ImportMain.class.getName(), megabytes, log);
    }

    private synchronized void giveBack(ImportProcess process) {
        if (!ended && waiting == null && process.isUsable() && process.tasks() < FILES) {
            waiting = process;
            return;
        }
        end(process);
    }

    private static void end(ImportProcess process) {
        try {
            process.close();
        } catch (IOException e) {
            LOG.debug("an import's process had ended by itself", e);
        }
    }

    @Override
    public synchronized void destroy() {
        ended = true;
        if (waiting != null) {
            end(waiting);
            waiting = null;
        }
    }
}
