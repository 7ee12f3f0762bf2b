package ironing.server.game;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface WorkspaceMapper {
  record Row(long id, String title, String gameFolder, String gameVersion, long mods) {}

  @Select(
      """
      select id, title, game_folder, coalesce(game_version, '') as game_version,
        (select count(*) from mod where workspace_id = w.id and binned_at is null) as mods
      from workspace w order by id
      """)
  List<Row> all();

  @Select("select id from workspace where game_folder = #{folder}")
  Long idOf(String folder);

  /** Those whose game lies below a folder, given with a slash at its end. */
  @Select("select id from workspace where starts_with(game_folder, #{folder}) order by id")
  List<Long> idsBelow(String folder);

  @Select(
      """
      insert into workspace (title, game_folder, definition, game_version)
      values (#{title}, #{folder}, #{definition}, #{version}) returning id
      """)
  long add(
      @Param("title") String title,
      @Param("folder") String folder,
      @Param("definition") String definition,
      @Param("version") String version);

  @Update(
      """
      with made as (
        insert into profile (workspace_id, name) values (#{workspace}, #{name}) returning id)
      update workspace set profile_id = (select id from made) where id = #{workspace}
      """)
  void addProfile(@Param("workspace") long workspace, @Param("name") String name);

  @Select("select definition from workspace where id = #{workspace}")
  String definition(long workspace);

  @Update(
      """
      update workspace set definition = #{definition}, title = #{title}, game_version = #{version}
      where id = #{workspace}
      """)
  void setDefinition(
      @Param("workspace") long workspace,
      @Param("definition") String definition,
      @Param("title") String title,
      @Param("version") String version);

  @Select("select count(*) from profile where workspace_id = #{workspace}")
  int profiles(long workspace);

  record PlaceRow(String place, String folder) {}

  @Select("select place, folder from workspace_place where workspace_id = #{workspace}")
  List<PlaceRow> places(long workspace);

  @Delete("delete from workspace_place where workspace_id = #{workspace}")
  void forgetPlaces(long workspace);

  @Insert(
      """
      insert into workspace_place (workspace_id, place, folder)
      values (#{workspace}, #{place}, #{folder})
      """)
  void addPlace(
      @Param("workspace") long workspace,
      @Param("place") String place,
      @Param("folder") String folder);

  /** With all that belongs to it. */
  @Delete("delete from workspace where id = #{workspace}")
  void remove(long workspace);

  @Select("select definition from workspace order by id")
  List<String> definitions();
}
