package ironing.server.layers;

import ironing.core.IroningException;
import ironing.server.platform.Events;
import ironing.server.platform.Json;
import ironing.server.workspace.OpenWorkspaces;
import java.util.List;
import java.util.Map;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.springframework.stereotype.Component;

/**
 * How the list of layers is shown: kept with the workspace, so that every browser shows it alike.
 */
@Component
class ShownLayers {
  private static final int MOST_VIEWS = 200;
  private static final int MOST_COLUMNS = 50;
  private static final int MOST_FOLDED = 10_000;
  private static final int LONGEST = 4_000;
  private static final int MOST_TEXT = 80_000;
  private static final int WIDEST_PX = 2_000;

  private final ShownMapper db;
  private final OpenWorkspaces workspaces;
  private final Events events;
  private final Json json;

  ShownLayers(ShownMapper db, OpenWorkspaces workspaces, Events events, Json json) {
    this.db = db;
    this.workspaces = workspaces;
    this.events = events;
    this.json = json;
  }

  /** The column of a workspace that holds it. */
  @Mapper
  interface ShownMapper {
    @Select("select layers_shown from workspace where id = #{workspace}")
    String shown(long workspace);

    @Update("update workspace set layers_shown = #{shown} where id = #{workspace}")
    void setShown(@Param("workspace") long workspace, @Param("shown") String shown);
  }

  /**
   * @param filter what is shown, as it is typed
   * @param sort by what the rows are sorted
   * @param columns which are shown, from the left
   */
  record ShownLayersView(String name, String filter, String sort, List<String> columns) {
    ShownLayersView {
      name = name == null ? "" : name;
      filter = filter == null ? "" : filter;
      sort = sort == null ? "" : sort;
      columns = columns == null ? List.of() : List.copyOf(columns);
    }
  }

  /**
   * @param sort by what the rows are sorted; empty for the first way
   * @param columns which are shown, from the left; empty for the first ones
   * @param widths of columns, in pixels; those that are not named have their first width
   * @param folded the numbers of the sections that are folded
   * @param turned whether the game stands on top
   * @param views that were given a name
   */
  record ShownLayersWish(
      String sort,
      List<String> columns,
      Map<String, Integer> widths,
      List<Integer> folded,
      boolean turned,
      List<ShownLayersView> views) {
    ShownLayersWish {
      sort = sort == null ? "" : sort;
      columns = columns == null ? List.of() : List.copyOf(columns);
      widths = widths == null ? Map.of() : Map.copyOf(widths);
      folded = folded == null ? List.of() : List.copyOf(folded);
      views = views == null ? List.of() : List.copyOf(views);
    }
  }

  ShownLayersWish of(long workspace) {
    workspaces.get(workspace);
    return json.read(db.shown(workspace), ShownLayersWish.class);
  }

  /**
   * @throws IroningException with code {@code too-long}
   */
  void keep(long workspace, ShownLayersWish wish) {
    workspaces.get(workspace);
    String text = json.write(wish);
    boolean fits =
        wish.views().size() <= MOST_VIEWS
            && wish.columns().size() <= MOST_COLUMNS
            && wish.widths().size() <= MOST_COLUMNS
            && wish.folded().size() <= MOST_FOLDED
            && wish.widths().values().stream().allMatch(w -> w > 0 && w <= WIDEST_PX)
            && wish.views().stream().allMatch(v -> v.filter().length() <= LONGEST)
            && text.length() <= MOST_TEXT;
    if (!fits)
      throw IroningException.of(
          "too-long",
          "How the layers are shown",
          "It has too many views or columns, or a text or a width in it is too large.",
          "Forget some views.");
    db.setShown(workspace, text);
    events.tell(workspace, "layers-shown", Map.of());
  }
}
