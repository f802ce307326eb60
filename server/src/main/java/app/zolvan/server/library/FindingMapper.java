package app.zolvan.server.library;

import java.util.List;
import java.util.UUID;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Words of the library's materials. */
@Mapper
interface FindingMapper {
    /** @param matched how many of the terms it answers */
    record Hit(UUID id, int matched) {}

    record Indexed(UUID id, String measure) {}

    /** The four texts weigh less from one to the next. */
    @Update("""
            update material set measure = #{measure}::jsonb, words =
                setweight(to_tsvector('english', #{texts[0]}), 'A') || setweight(to_tsvector('english', #{texts[1]}), 'B') ||
                setweight(to_tsvector('english', #{texts[2]}), 'C') || setweight(to_tsvector('english', #{texts[3]}), 'D')
            where id = #{id}""")
    void index(UUID id, String measure, List<String> texts);

    @Insert("""
            insert into library_word (word, library_id) select unnest(#{words}::text[]), #{library} on conflict do nothing""")
    void know(String[] words, @Nullable UUID library);

    @Insert("""
            insert into recent_material (account_id, material_id) values (#{account}, #{material})
            on conflict (account_id, material_id) do update set used_at = clock_timestamp()""")
    void used(UUID account, UUID material);

    @Select("""
            select material_id from recent_material where account_id = #{account}
            order by used_at desc limit #{most}""")
    List<UUID> recent(UUID account, int most);

    /** Names of the account's projects that show a material of the library, or one made from it. */
    @Select("""
            select distinct p.name from project p join material m on m.project_id = p.id
            where p.id in (select t.project_id from project_team t where t.account_id = #{account}) and m.origin = #{material}
                and exists (select 1 from entry e where e.material_id = m.id)
            order by p.name""")
    List<String> projectsWith(UUID account, UUID material);

    @Select("""
            select id, measure::text as measure from material
            where project_id is null and library_id is not distinct from #{library} and measure is not null""")
    List<Indexed> indexed(@Nullable UUID library);

    /** What is not a project's and ships or is of one of some libraries. */
    String SEEN = " m.project_id is null and (m.library_id is null or m.library_id = any (#{libraries}::uuid[])) ";

    /** Which of the terms, each as a query of its own, no material answers. */
    @Select("""
            select t.n::int - 1 from unnest(#{terms}::text[]) with ordinality t(q, n)
            where not exists (select 1 from material m where""" + SEEN + """
                and m.words @@ to_tsquery('english', t.q))
            order by 1""")
    List<Integer> unanswered(String[] terms, String[] libraries);

    @Select("""
            select word from library_word
            where word % #{word} and length(word) > 2
              and (library_id is null or library_id = any (#{libraries}::uuid[]))
            group by word
            order by similarity(word, #{word}) desc, levenshtein_less_equal(word, #{word}, 4), word limit 3""")
    List<String> near(String word, String[] libraries);

    /**
     * Those that answer all of the terms; those that say it more plainly first.
     *
     * @param all   the terms, one and the other
     * @param typed what was typed, one or the other
     */
    @Select("""
            select m.id, #{count} as matched
            from material m, to_tsquery('english', #{all}) a, to_tsquery('english', #{typed}) t
            where""" + SEEN + """
                and m.words @@ a
            order by ts_rank('{0.2, 0.4, 0.7, 1}', m.words, a) + 2 * ts_rank('{0.2, 0.4, 0.7, 1}', m.words, t) desc,
                m.position""")
    List<Hit> findAll(String all, String typed, int count, String[] libraries);

    /**
     * Those that answer most of the terms, at most {@code most}; those that say it more plainly first.
     *
     * @param terms each as a query of its own
     * @param any   all of them, one or the other
     */
    @Select("""
            with term as materialized (select to_tsquery('english', q) as q from unnest(#{terms}::text[]) q)
            select id, matched from (
                select m.id, m.position, m.words, t, (select count(*)::int from term where m.words @@ term.q) as matched
                from material m, to_tsquery('english', #{any}) a, to_tsquery('english', #{typed}) t
                where""" + SEEN + """
                    and m.words @@ a
                order by matched desc, m.position limit #{most}) m
            order by matched desc, ts_rank('{0.2, 0.4, 0.7, 1}', words, t) desc, position""")
    List<Hit> findAny(String[] terms, String any, String typed, int most, String[] libraries);
}
