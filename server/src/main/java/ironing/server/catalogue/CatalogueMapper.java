package ironing.server.catalogue;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** The catalogues of workspaces, and what they offered when they were last looked at. */
@Mapper
interface CatalogueMapper {
  /**
   * @param key of the state that was taken; null before the first, as sequence, digest, tag, state
   *     and time
   * @param look what the last look came to, as JSON; null before it
   * @param findingsSha256 of the findings that are here; null for none
   * @param findingsMistakes lines of them that were left out, as JSON
   */
  record CatalogueRow(
      long id,
      long workspaceId,
      String address,
      String title,
      int position,
      boolean daily,
      String key,
      Long sequence,
      String stateSha256,
      String etag,
      String state,
      OffsetDateTime takenAt,
      OffsetDateTime lookedAt,
      String look,
      String findingsSha256,
      String findingsMistakes) {}

  /** A part that is here. */
  record PartRow(String sha256, int mods, String mistakes, boolean repeating) {}

  /** The number that a new row gets. */
  final class NewCatalogue {
    private long id;

    public long getId() {
      return id;
    }

    public void setId(long id) {
      this.id = id;
    }
  }

  String COLUMNS =
      """
      id, workspace_id, address, title, position, is_daily as daily, key, sequence, state_sha256,
        etag, state, taken_at, looked_at, look, findings_sha256, findings_mistakes
      """;

  @Select(
      "select "
          + COLUMNS
          + " from catalogue where workspace_id = #{workspace} order by position, id")
  List<CatalogueRow> all(long workspace);

  @Select("select " + COLUMNS + " from catalogue where workspace_id = #{workspace} and id = #{id}")
  CatalogueRow get(@Param("workspace") long workspace, @Param("id") long id);

  @Select(
      """
      select workspace_id, id from catalogue
      where is_daily and (looked_at is null or looked_at < now() - interval '1 day')
      """)
  List<Due> due();

  /** A catalogue that is to be looked at. */
  record Due(long workspaceId, long id) {}

  @Insert(
      """
      insert into catalogue (workspace_id, address, position)
      values (#{workspace}, #{address},
        (select coalesce(max(position), 0) + 1 from catalogue where workspace_id = #{workspace}))
      on conflict (workspace_id, address) do nothing
      """)
  @Options(useGeneratedKeys = true, keyProperty = "row.id", keyColumn = "id")
  int add(
      @Param("workspace") long workspace,
      @Param("address") String address,
      @Param("row") NewCatalogue row);

  /**
   * Keeps a catalogue from being removed as long as the transaction goes on; null where it is gone.
   */
  @Select("select id from catalogue where id = #{id} for update")
  Long lock(long id);

  @Delete("delete from catalogue where workspace_id = #{workspace} and id = #{id}")
  int remove(@Param("workspace") long workspace, @Param("id") long id);

  @Update("update catalogue set is_daily = #{daily} where id = #{id}")
  void setDaily(@Param("id") long id, @Param("daily") boolean daily);

  @Update("update catalogue set position = #{position} where id = #{id}")
  void setPosition(@Param("id") long id, @Param("position") int position);

  @Update("update catalogue set key = #{key}, etag = null where id = #{id}")
  void setKey(@Param("id") long id, @Param("key") String key);

  @Update("update catalogue set looked_at = now(), look = #{look} where id = #{id}")
  void looked(@Param("id") long id, @Param("look") String look);

  @Update(
      """
      update catalogue set title = #{title}, key = #{key}, sequence = #{sequence},
        state_sha256 = #{sha256}, etag = #{etag}, state = #{state}, taken_at = now(),
        looked_at = now(), look = #{look}
      where id = #{id}
      """)
  void taken(
      @Param("id") long id,
      @Param("title") String title,
      @Param("key") String key,
      @Param("sequence") long sequence,
      @Param("sha256") String sha256,
      @Param("etag") String etag,
      @Param("state") String state,
      @Param("look") String look);

  @Update("update catalogue set etag = #{etag} where id = #{id}")
  void setEtag(@Param("id") long id, @Param("etag") String etag);

  @Select(
      """
      select sha256, mods, mistakes, is_repeating as repeating
      from catalogue_part where catalogue_id = #{catalogue} order by sha256
      """)
  List<PartRow> parts(long catalogue);

  @Insert(
      """
      insert into catalogue_part (catalogue_id, sha256, mods, mistakes, is_repeating)
      values (#{catalogue}, #{sha256}, #{mods}, #{mistakes}, #{repeating})
      """)
  void addPart(
      @Param("catalogue") long catalogue,
      @Param("sha256") String sha256,
      @Param("mods") int mods,
      @Param("mistakes") String mistakes,
      @Param("repeating") boolean repeating);

  @Delete("delete from offered_mod where catalogue_id = #{catalogue} and part = #{sha256}")
  void removeMods(@Param("catalogue") long catalogue, @Param("sha256") String sha256);

  @Delete("delete from catalogue_part where catalogue_id = #{catalogue} and sha256 = #{sha256}")
  void removePart(@Param("catalogue") long catalogue, @Param("sha256") String sha256);

  /**
   * What the mods of some parts were offered in.
   *
   * @param parts a list in JSON
   */
  @Select(
      """
      select mod, name, array_to_string(versions, chr(10)) as versions from offered_mod
      where catalogue_id = #{catalogue}
        and part in (select jsonb_array_elements_text(cast(#{parts} as jsonb)))
      """)
  List<Versions> versionsOf(@Param("catalogue") long catalogue, @Param("parts") String parts);

  /**
   * @param versions one a line
   */
  record Versions(String mod, String name, String versions) {}

  /**
   * Adds the mods of a part, some at a time; those that are there already stay as they are.
   *
   * @param rows a list in JSON of mod, name, game, summary, tags, authors, newestAt, versions,
   *     ranges, needs, files, sides, line
   * @return the ids that were added
   */
  @Select(
      """
      insert into offered_mod
        (catalogue_id, mod, part, name, game, tags, authors, newest_at, versions, ranges, needs, words,
         files, sides, line)
      select #{catalogue}, r.mod, #{part}, r.name, r.game, r.tags, r.authors, r."newestAt",
        r.versions, r.ranges, r.needs,
        setweight(to_tsvector('simple', r.named), 'A')
          || setweight(to_tsvector('simple', r.sorted), 'B')
          || setweight(to_tsvector('simple', r.told), 'C'),
        r.files, r.sides, r.line
      from jsonb_to_recordset(cast(#{rows} as jsonb)) as r(mod text, name text, game text,
        tags text[], authors text[], "newestAt" text, named text,
        sorted text, told text, versions text[],
        ranges text[], needs text[], files bigint[], sides text[], line text)
      on conflict do nothing
      returning mod
      """)
  @Options(flushCache = Options.FlushCachePolicy.TRUE)
  List<String> addMods(
      @Param("catalogue") long catalogue, @Param("part") String part, @Param("rows") String rows);

  /** Puts into the index of words what waits to be put there. */
  @Select("select gin_clean_pending_list('offered_mod_words'::regclass)")
  long settleWords();

  /** Has the database look how many of what there are. */
  @Update("analyze offered_mod, offered_need, offered_range")
  void count();

  @Insert(
      """
      insert into offered_range (catalogue_id, range)
      select #{catalogue}, value from jsonb_array_elements_text(cast(#{ranges} as jsonb))
      on conflict do nothing
      """)
  void addRanges(@Param("catalogue") long catalogue, @Param("ranges") String ranges);

  @Insert(
      """
      insert into offered_need (catalogue_id, mod, need)
      select #{catalogue}, split_part(value, ' ', 1), value
      from jsonb_array_elements_text(cast(#{needs} as jsonb))
      on conflict do nothing
      """)
  void addNeeds(@Param("catalogue") long catalogue, @Param("needs") String needs);

  @Delete("delete from catalogue_finding where catalogue_id = #{catalogue}")
  void removeFindings(long catalogue);

  /**
   * @param rows a list in JSON of mod, line
   */
  @Insert(
      """
      insert into catalogue_finding (catalogue_id, mod, line)
      select #{catalogue}, r.mod, r.line
      from jsonb_to_recordset(cast(#{rows} as jsonb)) as r(mod text, line text)
      """)
  void addFindings(@Param("catalogue") long catalogue, @Param("rows") String rows);

  @Update(
      """
      update catalogue set findings_sha256 = #{sha256}, findings_mistakes = #{mistakes}
      where id = #{id}
      """)
  void setFindings(
      @Param("id") long id, @Param("sha256") String sha256, @Param("mistakes") String mistakes);

  @Select("select count(*) from catalogue_finding where catalogue_id = #{catalogue}")
  int findings(long catalogue);
}
