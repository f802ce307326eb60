package app.zolvan.server.library;

import app.zolvan.core.adjust.Control;
import app.zolvan.core.adjust.Convention;
import app.zolvan.core.adjust.KindSheet;
import app.zolvan.core.assign.SchemeState;
import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.context.HelperForm;
import app.zolvan.core.find.Shelf;
import app.zolvan.core.material.Metal;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Substance;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.measure.PictureDifference;
import app.zolvan.core.prepare.DressingRules;
import app.zolvan.core.prepare.Role;
import app.zolvan.core.texture.DrawnRelief;
import app.zolvan.server.account.Account;
import app.zolvan.server.colour.ColourWire;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.ProjectService;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The library's materials. */
@RestController
class LibraryController {
    private static final int NEAREST = 6;
    private static final int PAGE = 40;
    private static final int MOST_VALUES = 24;
    private final MaterialService materials;
    private final ChipService chips;
    private final ProjectService projects;
    private final FindingService finding;

    LibraryController(MaterialService materials, ChipService chips, ProjectService projects, FindingService finding) {
        this.finding = finding;
        this.materials = materials;
        this.chips = chips;
        this.projects = projects;
    }

    /** A substance by its index of refraction, and the share of its speed that it leaves to light. */
    record SubstanceWire(String name, double ior, double lightShare) {}

    @GetMapping("/api/library/substances")
    List<SubstanceWire> substances() {
        return Arrays.stream(Substance.values())
                .map(s -> new SubstanceWire(s.label(), s.ior(), s.lightSpeed() / Substance.LIGHT))
                .toList();
    }

    /**
     * How a parameter, or a wish about several, is shown.
     *
     * @param scale    what is shown is the parameter times this
     * @param traced   whether only traced pictures show it
     * @param channel  of a picture that it usually reads; null where no picture may drive it
     * @param standard OpenPBR's own value; null for a wish
     */
    record ControlWire(
            String name,
            String fold,
            String label,
            String says,
            List<String> examples,
            List<String> ends,
            Parameter.Shape shape,
            double min,
            double max,
            double step,
            int decimals,
            String unit,
            double scale,
            boolean traced,
            @Nullable String channel,
            @Nullable Object standard) {

        static ControlWire of(Control c) {
            return new ControlWire(
                    c.name(),
                    c.fold(),
                    c.label(),
                    c.says(),
                    c.examples(),
                    c.ends(),
                    c.parameter().map(Parameter::shape).orElse(Parameter.Shape.NUMBER),
                    c.min(),
                    c.max(),
                    c.step(),
                    c.decimals(),
                    c.unit(),
                    c.scale(),
                    c.traced(),
                    c.parameter()
                            .filter(Parameter::takesPicture)
                            .map(p -> TextureUse.usualChannel(p).name().toLowerCase(Locale.ROOT))
                            .orElse(null),
                    c.standard().orElse(null));
        }
    }

    record SubKindWire(String name, String says) {}

    /** @param ages the ways in which it ages */
    record KindWire(String kind, List<String> first, List<String> ages, List<SubKindWire> subKinds) {}

    /** A measured metal and its reflectance facing. */
    record MetalWire(String id, String label, ColourWire colour) {}

    /** Another way to say a value. */
    record ConventionWire(String name, String label, String says) {}

    /** @param first the controls shown first of a material of no kind */
    record ControlsWire(
            List<ControlWire> controls,
            List<KindWire> kinds,
            List<String> first,
            List<MetalWire> metals,
            List<ConventionWire> conventions,
            List<OrderWire> orders,
            List<ReliefWire> reliefs,
            List<SchemeStateWire> schemeStates,
            List<RoleWord> roles,
            List<LieWord> lies,
            List<FormWord> forms) {}

    /** What a part can be in a design, as a designer reads it. */
    record RoleWord(Role role, String word) {}

    /** How a part can lie. */
    record LieWord(DressingRules.Lie lie, String word) {}

    /**
     * What can be put beside a design.
     *
     * @param company whether it is moved to where it looks well
     */
    record FormWord(HelperForm form, String word, String says, boolean company) {}

    /** How far a scheme can have got. */
    record SchemeStateWire(SchemeState name, String label, boolean needsReason) {}

    /** A pattern that a relief can have. */
    record ReliefWire(DrawnRelief name, String label) {}

    /** An order that materials can be laid in. */
    record OrderWire(Shelf.Order name, String label) {}

    /** What can be adjusted about materials, and how it is called. */
    @GetMapping("/api/library/controls")
    ControlsWire controls() {
        return new ControlsWire(
                Control.ALL.stream().map(ControlWire::of).toList(),
                KindSheet.ALL.stream()
                        .map(k -> new KindWire(
                                k.kind().word(),
                                k.first(),
                                k.ageing().keySet().stream()
                                        .map(Parameter::openPbrName)
                                        .toList(),
                                k.subKinds().stream()
                                        .map(s -> new SubKindWire(s.name(), s.says()))
                                        .toList()))
                        .toList(),
                KindSheet.FIRST_OF_ANY,
                Arrays.stream(Metal.values())
                        .map(m -> new MetalWire(m.name(), m.label(), ColourWire.of(m.facing())))
                        .toList(),
                Arrays.stream(Convention.values())
                        .map(c -> new ConventionWire(c.name(), c.label(), c.says()))
                        .toList(),
                Arrays.stream(Shelf.Order.values())
                        .map(o -> new OrderWire(o, o.label()))
                        .toList(),
                Arrays.stream(DrawnRelief.values())
                        .map(r -> new ReliefWire(r, r.label()))
                        .toList(),
                Arrays.stream(SchemeState.values())
                        .map(s -> new SchemeStateWire(s, s.word(), s.needsReason()))
                        .toList(),
                Arrays.stream(Role.values()).map(r -> new RoleWord(r, r.word())).toList(),
                Arrays.stream(DressingRules.Lie.values())
                        .map(l -> new LieWord(l, l.word()))
                        .toList(),
                Arrays.stream(HelperForm.values())
                        .map(f -> new FormWord(f, f.word(), f.says(), f.isCompany()))
                        .toList());
    }

    record ColourSought(@NotNull @Size(min = 3, max = 3) List<@NotNull Double> linear) {}

    /** @param difference CIEDE2000 between its mean colour and the one that is sought */
    record Near(MaterialWire material, double difference) {}

    /** The library's materials nearest to a colour. */
    @PostMapping("/api/library/nearest")
    List<Near> nearest(@AuthenticationPrincipal Account account, @Validated @RequestBody ColourSought c) {
        LinearRgb sought =
                LinearRgb.of(c.linear().stream().mapToDouble(v -> v).toArray()).clamped();
        CieLab to = CieLab.of(sought);
        return finding
                .find(new FindingService.Sought(account.id(), null, "", Map.of(), null, sought, null))
                .found()
                .samples()
                .stream()
                .limit(NEAREST)
                .map(k -> new Near(
                        finding.wire(k), CieLab.of(k.sample().measure().mean()).difference(to)))
                .toList();
    }

    /** The traced picture of a material that a project may show; 202 while it is being made. */
    @GetMapping("/api/projects/{projectId}/materials/{id}/chip")
    ResponseEntity<byte[]> chip(
            @AuthenticationPrincipal Account account, @PathVariable UUID projectId, @PathVariable UUID id) {
        projects.require(account, projectId);
        return chips.find(materials.requireUsable(account, projectId, id), account.id())
                .map(png -> ResponseEntity.ok()
                        .contentType(MediaType.IMAGE_PNG)
                        .cacheControl(CacheControl.noCache().cachePrivate())
                        .body(png))
                .orElseGet(() -> ResponseEntity.accepted().build());
    }

    /**
     * By how much the pictures of two samples differ, by CIEDE2000 from pixel to pixel.
     *
     * @param mean    over all pixels
     * @param p95     what all but a twentieth differ by at most
     * @param word    how surely they are told apart
     * @param picture the other sample as it would be if it differed so many times as much, a PNG
     */
    record Unlike(double mean, double p95, String word, byte[] picture) {}

    /** How unlike two materials look as samples; 202 while either's picture is being made. */
    @GetMapping("/api/projects/{projectId}/materials/{id}/unlike/{other}")
    ResponseEntity<Unlike> unlike(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID projectId,
            @PathVariable UUID id,
            @PathVariable UUID other,
            @RequestParam int times) {
        projects.require(account, projectId);
        if (times < 1 || times > PictureDifference.MOST_TIMES) {
            throw Problem.ofField("times", "A difference can be shown as it is, or up to 64 times as large.");
        }
        return chips.difference(
                        materials.requireUsable(account, projectId, id),
                        materials.requireUsable(account, projectId, other),
                        account.id())
                .map(d -> ResponseEntity.ok(
                        new Unlike(d.mean(), d.within(0.95), d.word().words(), d.exaggerated(times))))
                .orElseGet(() -> ResponseEntity.accepted().build());
    }

    /**
     * What is sought. Everything may be left out.
     *
     * @param place  where to look
     * @param words  as typed
     * @param wanted values of facets
     * @param near   a colour, linear: the nearest come first
     * @param like   a material: those that reflect most like it come first
     * @param from   how many to leave out, for the next page
     */
    record Sought(
            FindingService.@Nullable Place place,
            @Nullable @Size(max = 20_000) String words,
            @Nullable Map<Shelf.Facet, @Size(max = 50) Set<@Size(max = 100) String>> wanted,
            Shelf.@Nullable Order order,
            @Nullable @Size(min = 3, max = 3) List<@NotNull Double> near,
            @Nullable UUID like,
            @Nullable @Min(0) @Max(1_000_000) Integer from) {}

    record FacetWire(Shelf.Facet name, List<ValueWire> values) {}

    record ValueWire(String value, int count) {}

    /**
     * @param total     how many there are
     * @param materials a page of them
     * @param told      what was taken otherwise than typed
     */
    record FoundWire(
            int total,
            List<MaterialWire> materials,
            List<FacetWire> facets,
            @Nullable String told) {}

    /** Materials of the library that answer a wish, a page at a time, and what they could be narrowed down by. */
    @PostMapping("/api/projects/{projectId}/library/find")
    FoundWire find(
            @AuthenticationPrincipal Account account, @PathVariable UUID projectId, @Validated @RequestBody Sought s) {
        projects.require(account, projectId);
        LinearRgb near = s.near() == null
                ? null
                : LinearRgb.of(s.near().stream().mapToDouble(v -> v).toArray()).clamped();
        FindingService.Answer a = finding.find(new FindingService.Sought(
                account.id(),
                s.place(),
                s.words() == null ? "" : s.words(),
                s.wanted() == null ? Map.of() : s.wanted(),
                s.order(),
                near,
                s.like() == null
                        ? null
                        : finding.measure(materials.requireUsable(account, projectId, s.like()))
                                .look()));
        List<FindingService.Kept> all = a.found().samples();
        return new FoundWire(
                all.size(),
                all.stream()
                        .skip(s.from() == null ? 0 : s.from())
                        .limit(PAGE)
                        .map(finding::wire)
                        .toList(),
                a.found().counts().entrySet().stream()
                        .map(e -> new FacetWire(
                                e.getKey(),
                                FindingService.ordered(e.getValue()).stream()
                                        .limit(MOST_VALUES)
                                        .map(v -> new ValueWire(v, e.getValue().get(v)))
                                        .toList()))
                        .toList(),
                a.told());
    }

    /** The library's materials that the designer put on something last, the latest first. */
    @GetMapping("/api/library/recent")
    List<MaterialWire> recent(@AuthenticationPrincipal Account account) {
        return finding.recent(account.id()).stream().map(finding::wire).toList();
    }

    /**
     * A page of the materials that the designer may choose from, in the order of their codes.
     *
     * @param from how many come before it
     */
    @GetMapping("/api/library/materials")
    List<MaterialWire> materials(
            @AuthenticationPrincipal Account account,
            @RequestParam(defaultValue = "0") @Min(0) int from,
            @RequestParam(defaultValue = "500") @Min(1) @Max(1_000) int count) {
        return finding.all(account.id()).stream()
                .sorted(Comparator.<FindingService.Kept, String>comparing(
                                k -> k.row().code())
                        .thenComparing(k -> k.row().id()))
                .skip(from)
                .limit(count)
                .map(finding::wire)
                .toList();
    }
}
