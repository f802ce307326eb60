package app.zolvan.core.exchange.usd;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.TextNames;
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.exchange.usd.UsdNode.Site;
import app.zolvan.core.exchange.usd.UsdPrim.Arc;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Layers put together: what a prim says itself is stronger than what it inherits, its chosen variants, what it refers to,
 * its payloads and what it specializes, in this order. Layers that did not come along are noted.
 */
final class UsdStage {
    private static final int MOST_ARCS = 32;
    private static final int MOST_SITES = 256;

    private final Reading reading;
    private final Map<String, UsdLayer> opened = new HashMap<>();
    private final UsdNode root;
    private int nodes;

    private UsdStage(UsdLayer main, Reading reading) throws ImportException {
        this.reading = reading;
        List<Site> sites = new ArrayList<>();
        addLayer(main, "/", "/", 0, sites);
        root = new UsdNode("/", null, sites);
    }

    static UsdStage open(FileSet files, Reading reading) throws ImportException {
        UsdPrim layer = layer(files, reading);
        if (layer == null) {
            throw new ImportException("wrong-type", "This is not USD. Choose the file your program exported.");
        }
        return new UsdStage(new UsdLayer(layer, files), reading);
    }

    /** Null when the file is no layer. */
    private static UsdPrim layer(FileSet files, Reading reading) throws ImportException {
        String head = files.head();
        if (CrateReader.recognises(head)) {
            return CrateReader.read(files.bytes(), reading);
        }
        return UsdTextReader.recognises(head) ? UsdTextReader.read(files.bytes(), reading) : null;
    }

    UsdNode root() {
        return root;
    }

    /** The node at an absolute path; null for none. */
    UsdNode at(String path) throws ImportException {
        UsdNode n = root;
        for (String step : path.split("/")) {
            if (n != null && !step.isEmpty()) {
                n = n.children(this).get(step);
            }
        }
        return n;
    }

    /** A node with all that its own descriptions bring in by arcs. */
    UsdNode node(String path, UsdNode parent, List<Site> own) throws ImportException {
        if (++nodes > 8 * reading.limits().nodes()) {
            throw new ImportException(
                    "too-large", "The USD file describes more objects than Zolvan takes. Export it in parts.");
        }
        if (path.chars().filter(c -> c == '/').count() > reading.limits().depth()) {
            throw new ImportException(
                    "cyclic",
                    "“" + TextNames.shown(path, "A group")
                            + "” in the USD file holds itself, or is nested too deep. Export it again.");
        }
        List<Site> sites = new ArrayList<>();
        Map<String, String> chosen = new LinkedHashMap<>();
        for (Site s : own) {
            add(s, path, chosen, sites);
        }
        return new UsdNode(path, parent, sites);
    }

    private void add(Site s, String path, Map<String, String> chosen, List<Site> sites) throws ImportException {
        if (s.steps() > MOST_ARCS || sites.size() > MOST_SITES) {
            throw new ImportException(
                    "cyclic",
                    "“" + TextNames.shown(path, "A prim") + "” in the USD file refers to itself. Export it flattened.");
        }
        sites.add(s);
        s.prim().selections().forEach(chosen::putIfAbsent);
        follow(s, UsdPrim.ArcKind.INHERIT, path, chosen, sites);
        for (Map.Entry<String, Map<String, UsdPrim>> set : s.prim().variants().entrySet()) {
            UsdPrim variant = set.getValue().get(chosen.getOrDefault(set.getKey(), ""));
            if (variant != null) {
                add(s.of(variant), path, chosen, sites);
            }
            if (set.getValue().size() > 1) {
                reading.note("“" + TextNames.shown(s.prim().name(), "A prim") + "” has several variants ("
                        + TextNames.shown(set.getKey(), "variant") + "); the chosen one is shown.");
            }
        }
        follow(s, UsdPrim.ArcKind.REFERENCE, path, chosen, sites);
        follow(s, UsdPrim.ArcKind.PAYLOAD, path, chosen, sites);
        follow(s, UsdPrim.ArcKind.SPECIALIZE, path, chosen, sites);
    }

    private void follow(Site s, UsdPrim.ArcKind kind, String path, Map<String, String> chosen, List<Site> sites)
            throws ImportException {
        for (Arc arc : s.prim().arcs()) {
            if (arc.kind() != kind) {
                continue;
            }
            UsdLayer layer = arc.asset().isEmpty() ? s.layer() : other(arc.asset(), s.layer());
            if (layer == null) {
                continue;
            }
            String target = arc.path().isEmpty() ? defaultPrim(layer.root()) : arc.path();
            UsdPrim prim = find(layer.root(), target);
            if (prim == null) {
                reading.note("“" + TextNames.shown(target, "A prim") + "”, which “" + TextNames.shown(path, "a prim")
                        + "” refers to, is missing.");
            } else {
                add(new Site(prim, layer, target, path, s.steps() + 1), path, chosen, sites);
            }
        }
    }

    private static String defaultPrim(UsdPrim layer) {
        String name = layer.metadata().get("defaultPrim") instanceof String s ? s : "";
        if (name.isEmpty() && !layer.children().isEmpty()) {
            name = layer.children().keySet().iterator().next();
        }
        return name.startsWith("/") ? name : "/" + name;
    }

    private static UsdPrim find(UsdPrim layer, String path) {
        UsdPrim p = layer;
        for (String step : path.split("/")) {
            if (p != null && !step.isEmpty()) {
                p = p.children().get(step);
            }
        }
        return p;
    }

    private void addLayer(UsdLayer layer, String from, String to, int steps, List<Site> sites) throws ImportException {
        if (steps > MOST_ARCS || sites.size() > MOST_SITES) {
            throw new ImportException("cyclic", "The USD file’s layers hold each other. Export it flattened.");
        }
        sites.add(new Site(layer.root(), layer, from, to, steps));
        if (layer.root().metadata().get("subLayers") instanceof String[] below) {
            for (String asset : below) {
                UsdLayer next = other(asset, layer);
                if (next != null) {
                    addLayer(next, from, to, steps + 1, sites);
                }
            }
        }
    }

    private UsdLayer other(String asset, UsdLayer from) throws ImportException {
        String key = from.files().name() + "\n" + asset;
        if (!opened.containsKey(key)) {
            opened.put(key, null);
            Optional<ByteBuffer> bytes = from.files().companion(asset, reading);
            if (bytes.isEmpty()) {
                reading.note("“" + TextNames.shown(asset, "A layer")
                        + "”, which the USD file refers to, did not come along; put all layers into one zip.");
            } else {
                opened.put(key, layerOf(asset, bytes.get(), from));
            }
        }
        return opened.get(key);
    }

    private UsdLayer layerOf(String asset, ByteBuffer bytes, UsdLayer from) throws ImportException {
        String folder = from.files().name();
        folder = folder.contains("/") ? folder.substring(0, folder.lastIndexOf('/') + 1) : "";
        FileSet files = new FileSet(
                FileSet.normalise(folder + asset), bytes, from.files().companions());
        if (ZipArchive.looksLikeZip(bytes)) {
            ZipArchive archive = ZipArchive.open(bytes, reading.limits());
            files = UsdReader.mainLayer(archive, reading);
        }
        UsdPrim prim = files == null ? null : layer(files, reading);
        if (prim == null) {
            reading.note("“" + TextNames.shown(asset, "A layer") + "” is not USD that Zolvan reads; it was left out.");
            return null;
        }
        return new UsdLayer(prim, files);
    }
}
