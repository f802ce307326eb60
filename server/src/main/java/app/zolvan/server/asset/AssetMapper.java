package app.zolvan.server.asset;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface AssetMapper {

    record Chunk(byte[] bytes) {}

    /**
     * @param width  of a picture in pixels; null before it was looked at, 0 where its bytes are no picture
     * @param height likewise
     */
    record Row(
            long id,
            String sha256,
            long size,
            String mediaType,
            @Nullable Integer width,
            @Nullable Integer height) {}

    /** Begins an asset of known content; empty where the same bytes are stored already, or are about to be. */
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    @Select("""
            insert into asset (sha256, size, media_type) values (#{sha256}, #{size}, #{mediaType})
            on conflict (sha256) do nothing returning id""")
    Optional<Long> begin(String sha256, long size, String mediaType);

    @Insert("insert into asset_chunk (asset_id, seq, bytes) values (#{assetId}, #{seq}, #{bytes})")
    void addChunk(long assetId, int seq, byte[] bytes);

    @Update("update asset set media_type = #{mediaType} where sha256 = #{sha256}")
    void setMediaType(String sha256, String mediaType);

    @Select("""
            select id, sha256, size, media_type, width, height from asset
            where media_type like 'image/%' and width is null and sha256 is not null""")
    List<Row> unmeasured();

    @Update("update asset set width = #{width}, height = #{height} where id = #{id}")
    void setSize(long id, int width, int height);

    @Select("select id, sha256, size, media_type, width, height from asset where sha256 = #{sha256}")
    Optional<Row> find(String sha256);

    @Select("select bytes from asset_chunk where asset_id = #{assetId} and seq = #{seq}")
    @Nullable
    Chunk chunk(long assetId, int seq);

    @Insert("""
            insert into project_asset (project_id, sha256) values (#{projectId}, #{sha256})
            on conflict do nothing""")
    void addToProject(UUID projectId, String sha256);

    @Delete("""
            delete from project_asset p using asset a
            where a.sha256 = p.sha256 and a.media_type = #{mediaType} and p.project_id = #{projectId}""")
    void takeKindFromProject(UUID projectId, String mediaType);

    /** Those that the library brings are not a project's own. */
    @Select("""
            select a.id, a.sha256, a.size, a.media_type, a.width, a.height from project_asset p join asset a using (sha256)
            where p.project_id = #{projectId} and not p.removed
              and not exists (select 1 from library_asset l where l.sha256 = a.sha256 and l.library_id is null)
            order by a.size desc, a.sha256""")
    List<Row> ofProject(UUID projectId);

    @Update("update project_asset set removed = #{removed} where project_id = #{projectId} and sha256 = #{sha256}")
    int setRemoved(UUID projectId, String sha256, boolean removed);

    @Select("""
            select exists (select 1 from project_asset
                           where project_id = #{projectId} and sha256 = #{sha256} and not removed)""")
    boolean isShown(UUID projectId, String sha256);

    /** @param library null for the one that ships */
    @Insert("insert into library_asset (sha256, library_id) values (#{sha256}, #{library}) on conflict do nothing")
    void addToLibrary(String sha256, @Nullable UUID library);

    @Delete("""
            delete from library_asset where library_id = #{library} and sha256 <> all (#{kept}::text[])""")
    void takeFromLibrary(UUID library, String[] kept);

    /** Bytes that would be free if a library let go of some assets. */
    @Select("""
            select coalesce(sum(size), 0) from asset a where sha256 = any (#{some}::text[])
              and not exists (select 1 from project_asset p where p.sha256 = a.sha256)
              and not exists (select 1 from library_asset l
                              where l.sha256 = a.sha256 and l.library_id is distinct from #{library})""")
    long sizeOfThoseOnlyIn(UUID library, String[] some);

    @Select("select exists (select 1 from project_asset where project_id = #{projectId} and sha256 = #{sha256})")
    boolean isInProject(UUID projectId, String sha256);

    @Select("select exists (select 1 from library_asset where sha256 = #{sha256} and library_id is null)")
    boolean isInLibrary(String sha256);

    /** True where a library that an account is a member of shows it, or the one that ships. */
    @Select("""
            select exists (select 1 from library_asset l where l.sha256 = #{sha256} and (l.library_id is null or exists (
                select 1 from library_member m where m.account_id = #{account} and m.library_id = l.library_id)))""")
    boolean isInLibraryOf(UUID account, String sha256);

    /** Bytes that the projects of an account hold; what several of them hold counts once. */
    @Select("""
            select coalesce(sum(size), 0) from asset where sha256 in (
                select a.sha256 from project_asset a join project p on p.id = a.project_id where p.owner = #{account})""")
    long heldBy(UUID account);

    /** Held to the end of the transaction by whoever is about to refer to an asset; many at once. */
    @Select("select pg_advisory_xact_lock_shared(7102)::text")
    String keepAll();

    /** Waits until nobody is about to refer to an asset, and keeps others from it to the end of the transaction. */
    @Select("select pg_advisory_xact_lock(7102)::text")
    String lockForDeleting();

    /** Whatever refers to an asset keeps it, also what should be among a project's assets and is not. */
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    @Select("""
            delete from asset a where sha256 is not null
              and not exists (select 1 from project_asset p where p.sha256 = a.sha256)
              and not exists (select 1 from library_asset l where l.sha256 = a.sha256)
              and not exists (select 1 from job j where (j.asset = a.sha256 or j.kept = a.sha256)
                                and j.state in ('QUEUED', 'RUNNING', 'PAUSED', 'ASKING'))
              and not exists (select 1 from job_result r join job j on j.id = r.job_id
                              where r.asset = a.sha256 and not j.dismissed)
              and not exists (select 1 from model m where m.original_sha256 = a.sha256)
              and not exists (select 1 from placed_model m where m.original = a.sha256)
              and not exists (select 1 from part p where p.mesh = a.sha256)
            returning a.sha256""")
    List<String> deleteUnused();
}
