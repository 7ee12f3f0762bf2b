package ironing.server.workspace;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Contents of mods that nobody sees, under numbers of their own. */
@Mapper
interface FormerContentMapper {
  /** A number for a content of a mod, with its folder and card, and no files yet. */
  @Select(
      """
      insert into mod (workspace_id, strand_id, kind, folder, card, card_given, content_root,
        root_reason, choices, fitting, binned_at, former_of)
      select workspace_id, strand_id, kind, folder, card, card_given, content_root,
        root_reason, choices, fitting, now(), id
      from mod where id = #{mod} returning id
      """)
  long add(long mod);

  @Insert(
      """
      insert into mend (mod_id, profile_id, kind, plugin, records, ingredients, recipe, made, built_at)
      select #{former}, profile_id, kind, plugin, records, ingredients, recipe, made, built_at
      from mend where mod_id = #{mod}
      """)
  void addMend(@Param("mod") long mod, @Param("former") long former);

  @Update("update mod_file set mod_id = #{to} where mod_id = #{from}")
  void moveFiles(@Param("from") long from, @Param("to") long to);

  @Update("update left_out set mod_id = #{to} where mod_id = #{from}")
  void moveLeftOut(@Param("from") long from, @Param("to") long to);

  @Update(
      """
      update mod m set folder = o.folder, card = o.card, card_given = o.card_given from mod o
      where (m.id = #{one} and o.id = #{other}) or (m.id = #{other} and o.id = #{one})
      """)
  void exchangeMods(@Param("one") long one, @Param("other") long other);

  @Update(
      """
      update mend m set plugin = o.plugin, records = o.records, ingredients = o.ingredients,
        recipe = o.recipe, made = o.made, built_at = o.built_at
      from mend o
      where (m.mod_id = #{one} and o.mod_id = #{other}) or (m.mod_id = #{other} and o.mod_id = #{one})
      """)
  void exchangeMends(@Param("one") long one, @Param("other") long other);

  /** The folders of those that are more than so many for their mod, the newest staying. */
  @Select(
      """
      select folder from mod where former_of = #{mod} order by id desc offset #{most}
      """)
  List<String> foldersBeyond(@Param("mod") long mod, @Param("most") int most);

  @Delete(
      """
      delete from mod where id in
        (select id from mod where former_of = #{mod} order by id desc offset #{most})
      """)
  void deleteBeyond(@Param("mod") long mod, @Param("most") int most);

  @Delete("delete from mod where id = #{mod}")
  void delete(long mod);

  /** What is known of its files at a glance is made anew at the next look. */
  @Delete("delete from mod_index where mod_id = #{mod}")
  void forgetIndex(long mod);
}
