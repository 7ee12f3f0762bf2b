package ironing.server.mends;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

@Mapper
interface MendMapper {
  record MendRow(
      long modId, String plugin, int records, String ingredients, OffsetDateTime builtAt) {}

  @Select(
      """
      select mod_id, plugin, records, ingredients, built_at from mend
      where profile_id = #{profile} order by mod_id
      """)
  List<MendRow> of(long profile);

  @Insert(
      """
      insert into mend (mod_id, profile_id, plugin, records, ingredients)
      values (#{mod}, #{profile}, #{plugin}, #{records}, #{ingredients})
      on conflict (mod_id) do update set plugin = excluded.plugin, records = excluded.records,
        ingredients = excluded.ingredients, built_at = now()
      """)
  void put(
      @Param("mod") long mod,
      @Param("profile") long profile,
      @Param("plugin") String plugin,
      @Param("records") int records,
      @Param("ingredients") String ingredients);
}
