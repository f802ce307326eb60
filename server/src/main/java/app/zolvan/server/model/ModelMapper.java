package app.zolvan.server.model;

import app.zolvan.core.prepare.Role;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
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
            long lookedAt) {}

    record GroupRow(UUID projectId, int idx, int parent, String name, double[] local) {}

    record SetRow(UUID projectId, int idx, String name, UUID source) {}

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
            Role role) {}

    @Insert("""
            insert into model (project_id, file_name, original_sha256, bounds, triangles, faces, notes, format,
                               file_unit, unit_from, up_axis, up_from, variants, cut_kind, cut_linear, cut_angular,
                               findings, revision, looked_at)
            values (#{projectId}, #{fileName}, #{originalSha256}, #{bounds}, #{triangles}, #{faces}, #{notes},
                    #{format}, #{fileUnit}, #{unitFrom}, #{upAxis}, #{upFrom}, #{variants},
                    #{cutKind}, #{cutLinear}, #{cutAngular}, #{findings}, #{revision}, #{lookedAt})""")
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
                              closed, mean_thickness, sets, arrived_name)
            values (#{projectId}, #{idx}, #{groupIdx}, #{name}, #{world}, #{local}, #{mesh}, #{triangles}, #{size},
                    #{area}, #{volume}, #{closed}, #{meanThickness}, #{sets}, #{arrivedName})""")
    void insertPart(PartRow row);

    @Update("""
            update model set original_sha256 = #{original}, bounds = #{bounds}, triangles = #{triangles},
                             faces = #{faces}, cut_linear = #{linear}, cut_angular = #{angular}, findings = #{findings},
                             revision = revision + 1, looked_at = revision + 1
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
                            mean_thickness = #{meanThickness}
            where project_id = #{projectId} and idx = #{idx}""")
    void updatePart(PartRow row);

    @Update("""
            update part set name = #{state.name}, role = #{state.role}, mesh = #{state.shape.mesh},
                            triangles = #{state.shape.triangles}, area = #{state.shape.area},
                            volume = #{state.shape.volume}, closed = #{state.shape.closed},
                            mean_thickness = #{state.shape.meanThickness}
            where project_id = #{projectId} and idx = #{idx}""")
    void changePart(UUID projectId, int idx, PartState state);

    /** @param shapes whether shapes changed, so that what was found is of another model */
    @Update("""
            update model set looked_at = case when looked_at = revision and not #{shapes} then revision + 1
                                              else looked_at end,
                             revision = revision + 1,
                             triangles = (select sum(triangles) from part where project_id = #{projectId})
            where project_id = #{projectId}""")
    void countChange(UUID projectId, boolean shapes);

    @Update("""
            update model set findings = #{findings}, looked_at = #{revision}
            where project_id = #{projectId} and looked_at <= #{revision}""")
    void updateFindings(UUID projectId, String findings, long revision);

    @Select("select * from model where project_id = #{projectId}")
    Optional<ModelRow> findModel(UUID projectId);

    @Select("select * from model_group where project_id = #{projectId} order by idx")
    List<GroupRow> groups(UUID projectId);

    @Select("select * from matching_set where project_id = #{projectId} order by idx")
    List<SetRow> sets(UUID projectId);

    @Select("select * from part where project_id = #{projectId} order by idx")
    List<PartRow> parts(UUID projectId);
}
