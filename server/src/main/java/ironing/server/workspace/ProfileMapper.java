package ironing.server.workspace;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** The profiles of a workspace and the restore points of each. */
@Mapper
interface ProfileMapper {
  record Row(long id, String name, String arrangement, boolean isDeleted, boolean isAside) {}

  record PointRow(long id, long profileId, String name, String at, String arrangement) {}

  /** Takes the number that a new row got. */
  final class NewRow {
    private long id;

    long id() {
      return id;
    }
  }

  @Select(
      """
      select id, name, arrangement, deleted_at is not null as is_deleted, is_aside
      from profile
      where workspace_id = #{workspace} order by lower(name), id
      """)
  List<Row> all(long workspace);

  @Insert(
      """
      insert into profile (workspace_id, name, arrangement)
      values (#{workspace}, #{name}, #{arrangement})
      """)
  @Options(useGeneratedKeys = true, keyProperty = "row.id")
  void add(
      @Param("workspace") long workspace,
      @Param("name") String name,
      @Param("arrangement") String arrangement,
      @Param("row") NewRow row);

  /** One that no list of profiles shows. */
  @Insert(
      """
      insert into profile (workspace_id, name, arrangement, deleted_at, is_aside)
      values (#{workspace}, #{name}, #{arrangement}, now(), true)
      """)
  @Options(useGeneratedKeys = true, keyProperty = "row.id")
  void addAside(
      @Param("workspace") long workspace,
      @Param("name") String name,
      @Param("arrangement") String arrangement,
      @Param("row") NewRow row);

  @Insert(
      """
      insert into profile_setting (profile_id, path, sha256, content)
      select #{to}, path, sha256, content from profile_setting where profile_id = #{from}
      """)
  void copySettings(@Param("from") long from, @Param("to") long to);

  @Delete("delete from profile_setting where profile_id = #{profile}")
  void dropSettings(long profile);

  @Update("update profile set name = #{name} where id = #{profile}")
  void rename(@Param("profile") long profile, @Param("name") String name);

  @Update("update profile set deleted_at = now() where id = #{profile}")
  void delete(long profile);

  @Update("update profile set deleted_at = null where id = #{profile}")
  void bringBack(long profile);

  @Update("update workspace set profile_id = #{profile} where id = #{workspace}")
  void use(@Param("workspace") long workspace, @Param("profile") long profile);

  @Select(
      """
      select id, profile_id, name, to_char(at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at,
        arrangement
      from restore_point where profile_id = #{profile} order by id desc
      """)
  List<PointRow> points(long profile);

  @Insert(
      """
      insert into restore_point (profile_id, name, arrangement)
      values (#{profile}, #{name}, #{arrangement})
      """)
  void addPoint(
      @Param("profile") long profile,
      @Param("name") String name,
      @Param("arrangement") String arrangement);

  @Update("delete from restore_point where id = #{point} and profile_id = #{profile}")
  int deletePoint(@Param("profile") long profile, @Param("point") long point);
}
