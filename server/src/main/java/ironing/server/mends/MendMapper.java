package ironing.server.mends;

import java.time.OffsetDateTime;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface MendMapper {
  /**
   * @param kind patch or merge
   * @param ingredients plugin to SHA-256, as JSON; see {@link Ingredients}
   * @param recipe what it is for, as JSON
   * @param made what went into it, as JSON
   */
  record MendRow(
      long modId,
      String kind,
      String plugin,
      int records,
      String ingredients,
      String recipe,
      String made,
      OffsetDateTime builtAt) {}

  @Select(
      """
      select mod_id, kind, plugin, records, ingredients, recipe, made, built_at from mend
      where profile_id = #{profile} order by mod_id
      """)
  List<MendRow> of(long profile);

  @Insert(
      """
      insert into mend (mod_id, profile_id, kind, plugin, records, ingredients, recipe, made)
      values (#{mod}, #{profile}, #{kind}, #{plugin}, #{records}, #{ingredients}, #{recipe}, #{made})
      on conflict (mod_id) do update set plugin = excluded.plugin, records = excluded.records,
        ingredients = excluded.ingredients, recipe = excluded.recipe, made = excluded.made,
        built_at = now()
      """)
  void put(
      @Param("mod") long mod,
      @Param("profile") long profile,
      @Param("kind") String kind,
      @Param("plugin") String plugin,
      @Param("records") int records,
      @Param("ingredients") String ingredients,
      @Param("recipe") String recipe,
      @Param("made") String made);

  @Update("update mend set recipe = #{recipe} where mod_id = #{mod}")
  void setRecipe(@Param("mod") long mod, @Param("recipe") String recipe);
}
