package ironing.server.platform;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface InstallationMapper {
  @Select("select id::text from installation")
  String id();

  @Select("select library_folder from workspace where id = #{workspace}")
  String libraryFolder(long workspace);
}
