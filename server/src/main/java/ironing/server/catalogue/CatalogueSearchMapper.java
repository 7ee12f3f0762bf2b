package ironing.server.catalogue;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** What catalogues offer, found in the database. */
@Mapper
interface CatalogueSearchMapper {
  /** A line of a catalogue. */
  record LineRow(long catalogue, String title, String line) {}

  /**
   * The lines of some mods, the catalogues in the user's order.
   *
   * @param mods a list in JSON
   */
  @Select(
      """
      select c.id as catalogue, c.title, o.line
      from catalogue c join offered_mod o on o.catalogue_id = c.id
      where c.workspace_id = #{workspace} and o.game = #{game}
        and o.mod in (select jsonb_array_elements_text(cast(#{mods} as jsonb)))
      order by c.position, c.id
      """)
  List<LineRow> lines(
      @Param("workspace") long workspace, @Param("game") String game, @Param("mods") String mods);

  /** All ranges of the game's versions that are said. */
  @Select(
      """
      select distinct range from offered_range r join catalogue c on c.id = r.catalogue_id
      where c.workspace_id = #{workspace}
      """)
  List<String> ranges(long workspace);

  /**
   * All needs of some mods that are said.
   *
   * @param mods a list in JSON
   */
  @Select(
      """
      select distinct need from offered_need n join catalogue c on c.id = n.catalogue_id
      where c.workspace_id = #{workspace}
        and n.mod in (select jsonb_array_elements_text(cast(#{mods} as jsonb)))
      """)
  List<String> needs(@Param("workspace") long workspace, @Param("mods") String mods);

  /**
   * What is looked for. Null for what does not matter.
   *
   * @param words a query of PostgreSQL
   * @param typed as it was typed, in small letters
   * @param ranges in JSON, those that hold
   * @param met in JSON, the needs that are met
   */
  record Wanted(
      long workspace,
      String game,
      String words,
      String typed,
      String tag,
      String author,
      String ranges,
      String met,
      int from,
      int count) {}

  String WHERE =
      """
      from offered_mod o join catalogue c on c.id = o.catalogue_id
      where c.workspace_id = #{workspace} and o.game = #{game}
      <if test="words != null">and o.words @@ to_tsquery('simple', #{words})</if>
      <if test="tag != null">and #{tag} = any(o.tags)</if>
      <if test="author != null">and #{author} = any(o.authors)</if>
      <if test="ranges != null">
        and o.ranges <![CDATA[&&]]>
          array(select jsonb_array_elements_text(cast(#{ranges} as jsonb)))
      </if>
      <if test="met != null">
        and not exists (select 1 from unnest(o.needs) n
          where n not in (select jsonb_array_elements_text(cast(#{met} as jsonb))))
      </if>
      and not exists (select 1 from offered_mod p join catalogue d on d.id = p.catalogue_id
        where d.workspace_id = #{workspace} and p.mod = o.mod and p.game = o.game
          and (d.position, d.id) <![CDATA[<]]> (c.position, c.id))
      """;

  /** A mod that was found, as the first catalogue that offers it says. */
  @Select(
      "<script>select c.id as catalogue, c.title, o.line "
          + WHERE
          + """
          <choose>
            <when test="words != null">
              order by o.mod = #{typed} or lower(o.name) = #{typed} desc,
                ts_rank(o.words, to_tsquery('simple', #{words})) desc, o.newest_at desc, o.mod
            </when>
            <otherwise>order by o.newest_at desc, o.mod</otherwise>
          </choose>
          limit #{count} offset #{from}
          </script>
          """)
  List<LineRow> find(Wanted wanted);

  /** How many there are, counted up to a bound. */
  @Select("<script>select count(*) from (select 1 " + WHERE + " limit #{most}) found</script>")
  int count(CountedUpTo wanted);

  /** {@link Wanted}, and how far is counted. */
  record CountedUpTo(
      long workspace,
      String game,
      String words,
      String tag,
      String author,
      String ranges,
      String met,
      int most) {}

  /** A word with how many mods have it. */
  record Counted(String word, int mods) {}

  @Select(
      """
      select tag as word, count(*) as mods
      from catalogue c join offered_mod o on o.catalogue_id = c.id, unnest(o.tags) tag
      where c.workspace_id = #{workspace} and o.game = #{game}
      group by tag order by count(*) desc, tag limit 40
      """)
  List<Counted> tags(@Param("workspace") long workspace, @Param("game") String game);
}
