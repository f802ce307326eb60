package app.zolvan.server.model;

import app.zolvan.core.context.Belonging;
import app.zolvan.core.context.HelperForm;
import app.zolvan.core.prepare.Role;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface ModelMapper {

    record ModelRow(
            UUID projectId,
            String fileName,
            String originalSha256,
            double[] bounds,
            int triangles,
            int faces,
            String[] notes,
            String format,
            String fileUnit,
            String unitFrom,
            String upAxis,
            String upFrom,
            String variants,
            String cutKind,
            Double cutLinear,
            Double cutAngular,
            String findings,
            long revision,
            long lookedAt,
            String[] lacking) {

        public ModelRow {
            lacking = lacking == null ? new String[0] : lacking; // kept before it was known
        }

        ModelRow lacking(List<String> still) {
            return with(bounds, triangles, lookedAt, notes, still.toArray(new String[0]));
        }

        /** The same with other sentences about what files held that is not used; each once. */
        ModelRow noting(Stream<String> all) {
            return with(bounds, triangles, lookedAt, all.distinct().toArray(String[]::new), lacking);
        }

        /** The same of a model with other things in it; what was found in it is of another model then. */
        ModelRow holding(double[] otherBounds, int otherTriangles, boolean otherDesign) {
            return with(otherBounds, otherTriangles, otherDesign ? -1 : lookedAt, notes, lacking);
        }

        private ModelRow with(
                double[] otherBounds, int otherTriangles, long looked, String[] allNotes, String[] still) {
            return new ModelRow(
                    projectId,
                    fileName,
                    originalSha256,
                    otherBounds,
                    otherTriangles,
                    faces,
                    allNotes,
                    format,
                    fileUnit,
                    unitFrom,
                    upAxis,
                    upFrom,
                    variants,
                    cutKind,
                    cutLinear,
                    cutAngular,
                    findings,
                    revision,
                    looked,
                    still);
        }
    }

    record GroupRow(UUID projectId, int idx, int parent, String name, double[] local) {}

    /**
     * @param faces how many all its parts have; 0 for the first model, whose are in its own row
     * @param job   the work that brought it, so that it is not brought twice
     * @param original SHA-256 of the file it came in; null for the first model, whose is in its own row, and for helper
     *                 forms
     * @param upAxis   which axis of that file points up
     * @param lacking  what that file refers to and what did not come along
     * @param sources  the materials that its source materials became, in their order
     */
    record PlacedRow(
            UUID projectId,
            int idx,
            String name,
            String fileName,
            Belonging belonging,
            HelperForm form,
            int groupIdx,
            boolean hidden,
            boolean locked,
            double[] foot,
            double[] at,
            double[] degrees,
            double scale,
            int faces,
            UUID job,
            String original,
            String upAxis,
            String[] lacking,
            UUID[] sources) {

        public PlacedRow {
            lacking = lacking == null ? new String[0] : lacking; // kept before it was known
            sources = sources == null ? new UUID[0] : sources;
        }

        PlacedRow inGroup(int group) {
            return with(group, faces, lacking);
        }

        PlacedRow lacking(List<String> still) {
            return with(groupIdx, faces, still.toArray(new String[0]));
        }

        PlacedRow with(int group, int otherFaces) {
            return with(group, otherFaces, lacking);
        }

        private PlacedRow with(int group, int otherFaces, String[] still) {
            return new PlacedRow(
                    projectId,
                    idx,
                    name,
                    fileName,
                    belonging,
                    form,
                    group,
                    hidden,
                    locked,
                    foot,
                    at,
                    degrees,
                    scale,
                    otherFaces,
                    job,
                    original,
                    upAxis,
                    still,
                    sources);
        }
    }

    record SetRow(UUID projectId, int idx, String name, UUID source) {}

    record OwnFaceRow(UUID projectId, int idx, String name) {}

    /** @param ownFaces for each span the face that a designer cut there, −1 for none; empty for none at all */
    record PartRow(
            UUID projectId,
            int idx,
            int groupIdx,
            String name,
            double[] world,
            double[] local,
            String mesh,
            int triangles,
            double[] size,
            double area,
            double volume,
            boolean closed,
            double meanThickness,
            int[] sets,
            String arrivedName,
            int[] homes,
            int[] arrivedSets,
            double[] arrivedLocal,
            String arrivedMesh,
            Role role,
            double eased,
            String plainMesh,
            boolean locked,
            boolean lookedInto,
            int[] ownFaces) {
        public PartRow {
            ownFaces = ownFaces == null ? new int[0] : ownFaces; // kept before there were any
        }

        /** The same under other numbers, somewhere else. */
        PartRow as(int number, int group, double[] otherWorld, double[] otherSize) {
            return with(number, group, otherWorld, otherSize, shape(), ownFaces);
        }

        /** The same with other faces of a designer's. */
        PartRow faced(int[] faces) {
            return with(idx, groupIdx, world, size, shape(), faces);
        }

        /** The same with its edges eased, or as they are. */
        PartRow shown(PartState.Shape shape) {
            return with(idx, groupIdx, world, size, shape, ownFaces);
        }

        private PartRow with(
                int number, int group, double[] otherWorld, double[] otherSize, PartState.Shape shape, int[] faces) {
            return new PartRow(
                    projectId,
                    number,
                    group,
                    name,
                    otherWorld,
                    local,
                    shape.mesh(),
                    shape.triangles(),
                    otherSize,
                    shape.area(),
                    shape.volume(),
                    shape.closed(),
                    shape.meanThickness(),
                    sets,
                    arrivedName,
                    homes,
                    arrivedSets,
                    arrivedLocal,
                    arrivedMesh,
                    role,
                    shape.eased(),
                    shape.plainMesh(),
                    locked,
                    lookedInto,
                    faces);
        }

        PartState.Shape shape() {
            return new PartState.Shape(mesh, triangles, area, volume, closed, meanThickness, plainMesh, eased);
        }

        PartRow inGroup(int group) {
            return as(idx, group, world, size);
        }
    }

    @Insert("""
            insert into model (project_id, file_name, original_sha256, bounds, triangles, faces, notes, format,
                               file_unit, unit_from, up_axis, up_from, variants, cut_kind, cut_linear, cut_angular,
                               findings, revision, looked_at, lacking)
            select #{projectId}, #{fileName}, #{originalSha256}, #{bounds}, #{triangles}, #{faces}, #{notes},
                   #{format}, #{fileUnit}, #{unitFrom}, #{upAxis}, #{upFrom}, #{variants},
                   #{cutKind}, #{cutLinear}, #{cutAngular}, #{findings}, n.next, n.next, #{lacking}
            from (select nextval('model_revision') as next) n""")
    void insertModel(ModelRow row);

    @Insert("""
            insert into model_group (project_id, idx, parent, name, local)
            values (#{projectId}, #{idx}, #{parent}, #{name}, #{local})""")
    void insertGroup(GroupRow row);

    @Insert("""
            insert into matching_set (project_id, idx, name, source)
            values (#{projectId}, #{idx}, #{name}, #{source})""")
    void insertSet(SetRow row);

    @Insert("""
            insert into part (project_id, idx, group_idx, name, world, local, mesh, triangles, size, area, volume,
                              closed, mean_thickness, sets, arrived_name, homes, arrived_sets,
                              arrived_local, arrived_mesh, role, eased, plain_mesh, locked, looked_into, own_faces)
            values (#{projectId}, #{idx}, #{groupIdx}, #{name}, #{world}, #{local}, #{mesh}, #{triangles}, #{size},
                    #{area}, #{volume}, #{closed}, #{meanThickness}, #{sets}, #{arrivedName}, #{homes}, #{arrivedSets},
                    #{arrivedLocal}, #{arrivedMesh}, #{role}, #{eased}, #{plainMesh}, #{locked}, #{lookedInto},
                    #{ownFaces})""")
    void insertPart(PartRow row);

    @Insert("""
            insert into placed_model (project_id, idx, name, file_name, belonging, form, group_idx, hidden, locked, foot, at,
                                      degrees, scale, faces, job, original, up_axis, lacking, sources)
            values (#{projectId}, #{idx}, #{name}, #{fileName}, #{belonging}, #{form}, #{groupIdx}, #{hidden}, #{locked},
                    #{foot}, #{at}, #{degrees}, #{scale}, #{faces}, #{job}, #{original}, #{upAxis}, #{lacking},
                    #{sources})""")
    void insertPlaced(PlacedRow row);

    @Update("""
            update placed_model set name = #{state.name}, belonging = #{state.belonging}, hidden = #{state.hidden},
                                    locked = #{state.locked}, at = #{at}, degrees = #{degrees},
                                    scale = #{state.place.scale}
            where project_id = #{projectId} and idx = #{idx}""")
    void updatePlaced(UUID projectId, int idx, PlacedState state, double[] at, double[] degrees);

    @Update("update model_group set local = #{local} where project_id = #{projectId} and idx = #{idx}")
    void moveGroup(UUID projectId, int idx, double[] local);

    @Delete("delete from placed_model where project_id = #{projectId}")
    void deletePlaced(UUID projectId);

    @Select("select * from placed_model where project_id = #{projectId} order by idx")
    List<PlacedRow> placed(UUID projectId);

    @Update("""
            update model set original_sha256 = #{original}, bounds = #{bounds}, triangles = #{triangles},
                             faces = #{faces}, cut_linear = #{linear}, cut_angular = #{angular}, findings = #{findings},
                             revision = n.next, looked_at = n.next
            from (select nextval('model_revision') as next) n
            where project_id = #{projectId}""")
    void updateCut(
            UUID projectId,
            String original,
            double[] bounds,
            int triangles,
            int faces,
            double linear,
            double angular,
            String findings);

    @Update("""
            update part set world = #{world}, local = #{local}, mesh = #{mesh}, triangles = #{triangles},
                            size = #{size}, area = #{area}, volume = #{volume}, closed = #{closed},
                            mean_thickness = #{meanThickness}, sets = #{sets}, homes = #{homes}, own_faces = #{ownFaces},
                            arrived_mesh = #{arrivedMesh}, arrived_local = #{arrivedLocal},
                            eased = #{eased}, plain_mesh = #{plainMesh}
            where project_id = #{projectId} and idx = #{idx}""")
    void updatePart(PartRow row);

    @Update("""
            update part set name = #{state.name}, role = #{state.role}, mesh = #{state.shape.mesh},
                            triangles = #{state.shape.triangles}, area = #{state.shape.area},
                            volume = #{state.shape.volume}, closed = #{state.shape.closed},
                            mean_thickness = #{state.shape.meanThickness}, eased = #{state.shape.eased},
                            plain_mesh = #{state.shape.plainMesh}, sets = #{sets}, homes = #{homes},
                            own_faces = #{ownFaces}, locked = coalesce(#{state.locked}, locked),
                            looked_into = coalesce(#{state.lookedInto}, looked_into)
            where project_id = #{projectId} and idx = #{idx}""")
    void changePart(UUID projectId, int idx, PartState state, int[] sets, int[] homes, int[] ownFaces);

    @Update("""
            update part set local = #{local}, world = #{world}, size = #{size}
            where project_id = #{projectId} and idx = #{idx}""")
    void movePart(UUID projectId, int idx, double[] local, double[] world, double[] size);

    @Update("update model set bounds = #{bounds} where project_id = #{projectId}")
    void updateBounds(UUID projectId, double[] bounds);

    /** The revision of a project's model; empty where there is no such project. */
    @Select("select revision from model where project_id = #{projectId}")
    Optional<Long> revision(UUID projectId);

    /** The value as the database has it now, past the session cache of this transaction. */
    @Select("select revision from model where project_id = #{projectId}")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    Optional<Long> latestRevision(UUID projectId);

    /**
     * Gives a changed model its next revision. Revisions come from one sequence, which a rollback does not turn back, so
     * that one never stands for two contents.
     *
     * @param shapes whether shapes changed, so that what was found is of another model
     */
    @Update("""
            update model set looked_at = case when looked_at = revision and not #{shapes} then n.next else looked_at end,
                             revision = n.next,
                             triangles = (select sum(triangles) from part where project_id = #{projectId})
            from (select nextval('model_revision') as next) n
            where project_id = #{projectId}""")
    void countChange(UUID projectId, boolean shapes);

    @Update("""
            update model set findings = #{findings}, looked_at = #{revision}
            where project_id = #{projectId} and looked_at <= #{revision}""")
    void updateFindings(UUID projectId, String findings, long revision);

    /** Keeps sentences about what a file held that is not used; each once. Whoever looks has looked at all there is. */
    @Update("""
            update model set notes = notes || array(select x from unnest(#{notes}::text[]) x where x <> all (notes)),
                             revision = n.next,
                             looked_at = case when looked_at = revision then n.next else looked_at end
            from (select nextval('model_revision') as next) n
            where project_id = #{projectId}""")
    void addNotes(UUID projectId, String[] notes);

    /** Numbered one after the other, whatever comes of those before. */
    @Select("""
            insert into own_face (project_id, idx, name)
            select #{projectId}, coalesce(max(idx), -1) + 1, #{name} from own_face where project_id = #{projectId}
            returning idx""")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    int insertOwnFace(UUID projectId, String name);

    @Update("update own_face set name = #{name} where project_id = #{projectId} and idx = #{idx}")
    void nameOwnFace(UUID projectId, int idx, String name);

    @Select("select * from own_face where project_id = #{projectId} order by idx")
    List<OwnFaceRow> ownFaces(UUID projectId);

    @Update("update matching_set set name = #{name} where project_id = #{projectId} and idx = #{idx}")
    void nameSet(UUID projectId, int idx, String name);

    /** All of a model's row but its revision, which goes on counting. */
    @Update("""
            update model set file_name = #{row.fileName}, original_sha256 = #{row.originalSha256}, bounds = #{row.bounds},
                             triangles = #{row.triangles}, faces = #{row.faces}, notes = #{row.notes},
                             format = #{row.format}, file_unit = #{row.fileUnit}, unit_from = #{row.unitFrom},
                             up_axis = #{row.upAxis}, up_from = #{row.upFrom}, variants = #{row.variants},
                             cut_kind = #{row.cutKind}, cut_linear = #{row.cutLinear}, cut_angular = #{row.cutAngular},
                             findings = #{row.findings}, lacking = #{row.lacking}, revision = n.next,
                             looked_at = case when #{looked} then n.next else -1 end
            from (select nextval('model_revision') as next) n
            where project_id = #{row.projectId}""")
    void replaceModel(ModelRow row, boolean looked);

    @Delete("delete from part where project_id = #{projectId}")
    void deleteParts(UUID projectId);

    @Delete("delete from matching_set where project_id = #{projectId}")
    void deleteSets(UUID projectId);

    @Delete("delete from model_group where project_id = #{projectId}")
    void deleteGroups(UUID projectId);

    /** @param proposal SHA-256 of the asset that holds it */
    record UpdateRow(UUID projectId, String fileName, String proposal) {}

    @Insert("""
            insert into model_update (project_id, file_name, proposal) values (#{projectId}, #{fileName}, #{proposal})
            on conflict (project_id) do update set file_name = excluded.file_name, proposal = excluded.proposal""")
    void putUpdate(UpdateRow row);

    @Select("select * from model_update where project_id = #{projectId}")
    Optional<UpdateRow> findUpdate(UUID projectId);

    @Delete("delete from model_update where project_id = #{projectId}")
    int deleteUpdate(UUID projectId);

    @Select("select * from model where project_id = #{projectId}")
    Optional<ModelRow> findModel(UUID projectId);

    @Select("select * from model_group where project_id = #{projectId} order by idx")
    List<GroupRow> groups(UUID projectId);

    @Select("select * from matching_set where project_id = #{projectId} order by idx")
    List<SetRow> sets(UUID projectId);

    @Select("select * from part where project_id = #{projectId} order by idx")
    List<PartRow> parts(UUID projectId);
}
