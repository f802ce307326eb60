package app.zolvan.core.command;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.formats.MaterialFiles;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceImage;
import app.zolvan.core.model.SourceMaterial;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** {@code material FILE}: says which materials a file holds, and writes them in another format. */
final class MaterialCommand {
    private final PrintStream out;
    private final PrintStream err;

    MaterialCommand(PrintStream out, PrintStream err) {
        this.out = out;
        this.err = err;
    }

    /** @param to where to write them; null for nowhere */
    int run(Path file, Path to, Reading reading) throws IOException, ImportException {
        Path folder = file.toAbsolutePath().getParent();
        Model model = MaterialFiles.read(
                file.getFileName().toString(), CommandLine.map(file), new CommandLine.Folder(folder), reading);
        Map<String, Object> report = new LinkedHashMap<>();
        report.put(
                "materials",
                model.sources().stream()
                        .map(s -> describe(s.material(), model.images()))
                        .toList());
        report.put("losses", model.notes());
        byte[] json = JsonText.utf8(report);
        out.write(json, 0, json.length);
        out.println();
        if (to != null) {
            write(model, to);
        }
        return CommandLine.DONE;
    }

    private static Map<String, Object> describe(Material m, Map<String, SourceImage> images) {
        Map<String, Object> o = new LinkedHashMap<>();
        o.put("name", m.name());
        if (!m.code().isEmpty()) {
            o.put("code", m.code());
        }
        if (m.kind() != null) {
            o.put("kind", m.kind().word());
        }
        Map<String, Object> parameters = new LinkedHashMap<>(MaterialJson.write(m.surface()));
        parameters.remove("textures");
        o.put("parameters", parameters);
        List<Object> textures = new ArrayList<>();
        m.surface().textures().forEach((p, t) -> textures.add(describe(p, t, images.get(t.image()))));
        o.put("textures", textures);
        return o;
    }

    private static Map<String, Object> describe(Parameter p, TextureUse t, SourceImage image) {
        Map<String, Object> o = new LinkedHashMap<>();
        o.put("parameter", p.openPbrName());
        o.put("image", image.name());
        o.put("pixels", new double[] {image.width(), image.height()});
        o.put("channel", t.channel().name().toLowerCase(Locale.ROOT));
        o.put("colour_space", p.shape() == Parameter.Shape.COLOUR ? "sRGB" : "linear");
        if (t.placement() instanceof RealSize size) {
            o.put("real_size", new double[] {size.width(), size.height()});
        }
        return o;
    }

    private void write(Model model, Path to) throws IOException, ImportException {
        String name = to.getFileName().toString();
        int dot = Math.max(0, name.lastIndexOf('.'));
        String ending = name.substring(dot + 1).toLowerCase(Locale.ROOT);
        if (!MaterialFiles.endings().contains(ending)) {
            throw new ImportException(
                    "wrong-type",
                    "There is no format with the ending “" + ending + "” to write materials in. There are: "
                            + String.join(", ", MaterialFiles.endings()) + ".");
        }
        List<Material> materials =
                model.sources().stream().map(SourceMaterial::material).toList();
        List<String> losses = MaterialFiles.write(
                ending,
                materials,
                digest -> model.images().get(digest).bytes(),
                name.substring(0, dot),
                CommandLine.into(to.toAbsolutePath().getParent()));
        losses.forEach(err::println);
    }
}
