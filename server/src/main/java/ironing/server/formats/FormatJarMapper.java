package ironing.server.formats;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** The jars that the user has confirmed. */
@Mapper
interface FormatJarMapper {
  record JarRow(String sha256, String name) {}

  @Select("select sha256, name from format_jar order by name, sha256")
  List<JarRow> all();

  @Insert(
      "insert into format_jar (sha256, name) values (#{sha256}, #{name}) on conflict do nothing")
  void add(@Param("sha256") String sha256, @Param("name") String name);

  @Delete("delete from format_jar where sha256 = #{sha256}")
  int remove(String sha256);
}
