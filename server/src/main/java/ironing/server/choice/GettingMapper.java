package ironing.server.choice;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Choices that are being followed. */
@Mapper
interface GettingMapper {
  /**
   * @param choice as JSON
   */
  record GettingRow(long id, long workspaceId, String choice) {}

  /** The number that a new row gets. */
  final class NewGetting {
    private long id;

    public long getId() {
      return id;
    }

    public void setId(long id) {
      this.id = id;
    }
  }

  @Select("select * from getting order by id")
  List<GettingRow> all();

  @Insert("insert into getting (workspace_id, choice) values (#{workspace}, #{choice})")
  @Options(useGeneratedKeys = true, keyProperty = "row.id", keyColumn = "id")
  void add(
      @Param("workspace") long workspace,
      @Param("choice") String choice,
      @Param("row") NewGetting row);

  @Delete("delete from getting where id = #{id}")
  void remove(long id);
}
