package ironing.server.deploy;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** The profiles' own copies of settings files. */
@Mapper
interface ProfileSettingsMapper {
  record SettingRow(String path, String sha256, byte[] content, String at) {}

  @Select("select id from profile where workspace_id = #{workspace}")
  List<Long> profiles(long workspace);

  @Select(
      """
      select path, sha256, content, to_char(at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at
      from profile_setting where profile_id = #{profile} order by path
      """)
  List<SettingRow> all(long profile);

  @Insert(
      """
      insert into profile_setting (profile_id, path, sha256, content)
      values (#{profile}, #{path}, #{sha256}, #{content})
      on conflict (profile_id, path)
      do update set sha256 = excluded.sha256, content = excluded.content, at = now()
      """)
  void put(
      @Param("profile") long profile,
      @Param("path") String path,
      @Param("sha256") String sha256,
      @Param("content") byte[] content);

  @Delete("delete from profile_setting where profile_id = #{profile} and path = #{path}")
  int drop(@Param("profile") long profile, @Param("path") String path);
}
