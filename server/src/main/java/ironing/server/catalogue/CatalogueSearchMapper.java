package ironing.server.catalogue;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

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
        and o.mod = any(array(select jsonb_array_elements_text(cast(#{mods} as jsonb))))
      order by c.position, c.id
      """)
  List<LineRow> lines(
      @Param("workspace") long workspace, @Param("game") String game, @Param("mods") String mods);

  /**
   * The lines of bridges that have a side among some mods.
   *
   * @param mods a list in JSON
   */
  @Select(
      """
      select c.id as catalogue, c.title, o.line
      from catalogue c join offered_mod o on o.catalogue_id = c.id
      where c.workspace_id = #{workspace} and o.game = #{game} and o.sides <> '{}'
        and o.sides && array(select jsonb_array_elements_text(cast(#{mods} as jsonb)))
      order by c.position, c.id, o.mod
      """)
  List<LineRow> bridges(
      @Param("workspace") long workspace, @Param("game") String game, @Param("mods") String mods);

  /** Which mod an archive is of, by its digest; {@code file} is its beginning as a number. */
  record FileRow(long file, String line) {}

  /**
   * The lines that name one of some archives.
   *
   * @param files a list in JSON of numbers, see {@link CatalogueTaking#prefix}
   */
  @Select(
      """
      select f.file, o.line
      from catalogue c join offered_mod o on o.catalogue_id = c.id, unnest(o.files) f(file)
      where c.workspace_id = #{workspace} and o.game = #{game}
        and o.files && array(select jsonb_array_elements_text(cast(#{files} as jsonb))::bigint)
        and f.file = any(array(select jsonb_array_elements_text(cast(#{files} as jsonb))::bigint))
      order by c.position, c.id, o.mod
      """)
  List<FileRow> withFiles(
      @Param("workspace") long workspace, @Param("game") String game, @Param("files") String files);

  /** Those of some ids that a catalogue has. */
  @Select(
      """
      select distinct o.mod from catalogue c join offered_mod o on o.catalogue_id = c.id
      where c.workspace_id = #{workspace} and o.game = #{game}
        and o.mod = any(array(select jsonb_array_elements_text(cast(#{mods} as jsonb))))
      """)
  List<String> known(
      @Param("workspace") long workspace, @Param("game") String game, @Param("mods") String mods);

  /** The lines of findings about some mods. */
  @Select(
      """
      select f.line from catalogue c join catalogue_finding f on f.catalogue_id = c.id
      where c.workspace_id = #{workspace}
        and f.mod = any(array(select jsonb_array_elements_text(cast(#{mods} as jsonb))))
      order by c.position, c.id, f.ctid
      """)
  List<String> findings(@Param("workspace") long workspace, @Param("mods") String mods);

  /** The archives that mods were made of. */
  record ArchiveOf(long mod, String sha256) {}

  @Select(
      """
      select m.id as mod, a.sha256 from mod m join archive a on a.id = m.archive_id
      where m.workspace_id = #{workspace} and m.binned_at is null
      """)
  List<ArchiveOf> archives(long workspace);

  /** What the user has said that mods are. */
  record SaidRow(long strandId, String mod) {}

  @Select(
      """
      select strand_id, mod from catalogued c join strand s on s.id = c.strand_id
      where s.workspace_id = #{workspace}
      """)
  List<SaidRow> said(long workspace);

  @Update(
      """
      insert into catalogued (strand_id, mod) values (#{strand}, #{mod})
      on conflict (strand_id) do update set mod = #{mod}
      """)
  void say(@Param("strand") long strand, @Param("mod") String mod);

  @Update("delete from catalogued where strand_id = #{strand}")
  void unsay(long strand);

  /** The catalogues of a workspace that have a state, in the user's order. */
  @Select(
      """
      select id, title from catalogue
      where workspace_id = #{workspace} and state is not null order by position, id
      """)
  List<Place> places(long workspace);

  /** A catalogue that is searched. */
  record Place(long id, String title) {}

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
        and n.mod = any(array(select jsonb_array_elements_text(cast(#{mods} as jsonb))))
      """)
  List<String> needs(@Param("workspace") long workspace, @Param("mods") String mods);

  /**
   * What is looked for in one catalogue. Null for what does not matter.
   *
   * @param before earlier catalogues; a mod of these is not told again
   * @param words a query of PostgreSQL
   * @param but another query, of what is not wanted
   * @param mod the id of the one mod that is wanted
   * @param butMod the id of one that is not
   * @param ranges in JSON, those that hold
   * @param met in JSON, the needs that are met
   * @param isByAge whether it is looked for from the newest on; it makes another statement of it,
   *     since the database keeps the way that it has once found for a statement
   */
  record Wanted(
      long catalogue,
      List<Long> before,
      String game,
      String words,
      String but,
      String mod,
      String butMod,
      String tag,
      String author,
      String ranges,
      String met,
      boolean isByAge) {
    /** Whether nothing matters but what {@link CatalogueSearchMapper#withWords} counts. */
    boolean isByWordsAlone() {
      return but == null
          && tag == null
          && author == null
          && ranges == null
          && met == null
          && before.isEmpty();
    }

    Wanted byAge() {
      return new Wanted(
          catalogue, before, game, words, but, mod, butMod, tag, author, ranges, met, true);
    }
  }

  String WHERE =
      """
      from offered_mod o <if test="w.isByAge">/* by age */</if>
      where o.catalogue_id = #{w.catalogue} and o.game = #{w.game}
      <if test="w.mod != null">and o.mod = #{w.mod}</if>
      <if test="w.butMod != null">and o.mod &lt;&gt; #{w.butMod}</if>
      <if test="w.words != null">and o.words @@ to_tsquery('simple', #{w.words})</if>
      <if test="w.but != null">and not o.words @@ to_tsquery('simple', #{w.but})</if>
      <if test="w.tag != null">and #{w.tag} = any(o.tags)</if>
      <if test="w.author != null">and #{w.author} = any(o.authors)</if>
      <if test="w.ranges != null">
        and o.ranges &amp;&amp; array(select jsonb_array_elements_text(cast(#{w.ranges} as jsonb)))
      </if>
      <if test="w.met != null">
        and not exists (select 1 from unnest(o.needs) n
          where n not in (select jsonb_array_elements_text(cast(#{w.met} as jsonb))))
      </if>
      <if test="!w.before.isEmpty()">
        and not exists (select 1 from offered_mod p where p.mod = o.mod and p.game = o.game
          and p.catalogue_id in
          <foreach collection="w.before" item="b" open="(" separator="," close=")">#{b}</foreach>)
      </if>
      """;

  /**
   * How many mods have the words, counted up to a bound; nothing else that is wanted counts but the
   * game, and the one mod that is not wanted.
   */
  @Select(
      """
      select count(*) from (select 1 from offered_mod
        where catalogue_id = #{w.catalogue} and game = #{w.game} and mod <> #{w.butMod}
          and words @@ to_tsquery('simple', #{w.words})
        limit #{most}) found
      """)
  int withWords(@Param("w") Wanted wanted, @Param("most") int most);

  /**
   * For this transaction: looks by the index of words. The database takes every beginning of a word
   * to be in one mod of fifty, and would read all mods for one that is in three.
   */
  @Update(
      "set local enable_seqscan = off; set local enable_indexscan = off; set local enable_bitmapscan = on")
  void byWords();

  /** For this transaction: looks from the newest on, which soon finds some of very many. */
  @Update(
      "set local enable_seqscan = off; set local enable_indexscan = on; set local enable_bitmapscan = off")
  void byAge();

  /** The lines that are found, the newest first. */
  @Select(
      "<script>select o.line "
          + WHERE
          + " order by o.newest_at desc, o.mod limit #{count} offset #{from}</script>")
  List<String> find(@Param("w") Wanted wanted, @Param("from") int from, @Param("count") int count);

  /** How many there are, counted up to a bound. */
  @Select("<script>select count(*) from (select 1 " + WHERE + " limit #{most}) found</script>")
  int count(@Param("w") Wanted wanted, @Param("most") int most);

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
