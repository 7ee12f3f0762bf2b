package ironing.core.deploy;

import ironing.core.archive.ContentHash;
import ironing.core.deploy.DeployPlan.Content;
import ironing.core.deploy.DeployPlan.Wanted;
import ironing.core.deploy.DeployPlan.Writer;
import ironing.core.game.DocumentPlugins;
import ironing.core.game.DocumentPlugins.OrderNumber;
import ironing.core.game.DocumentPlugins.Spot;
import ironing.core.game.GameDefinition;
import ironing.core.layers.Holdings;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.path.GamePath;
import ironing.core.picture.Picture;
import ironing.core.plugin.PluginFiles;
import ironing.core.text.DecodedText;
import ironing.core.text.JsonPlace;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The order of a game that goes by a number in each plugin: copies of the files that hold it, each
 * with the number of its place. All else in them keeps its bytes.
 *
 * <p>Cost: the files that hold a number are read.
 */
public final class OrderNumbers {
  private OrderNumbers() {}

  /** Empty for a game that has no such numbers. A file that is no JSON is left as it is. */
  public static List<Wanted> of(Picture picture) {
    Optional<OrderNumber> number =
        picture
            .game()
            .plugins()
            .flatMap(GameDefinition.Plugins::documents)
            .flatMap(DocumentPlugins::number);
    if (number.isEmpty()) return List.of();
    List<Wanted> all = new ArrayList<>();
    long next = number.get().from();
    for (Entry e : picture.loadOrder().active()) {
      if (e.own() || e.plugin().files().isEmpty()) continue;
      numbered(picture, e.plugin().files().get(), number.get(), next).ifPresent(all::add);
      next += number.get().step();
    }
    return all;
  }

  private static Optional<Wanted> numbered(
      Picture picture, PluginFiles files, OrderNumber number, long value) {
    List<String> names = ((Spot.InJson) number.at()).path().names().orElseThrow();
    return part(picture, files, number.file())
        .flatMap(
            part ->
                picture
                    .part(part)
                    .flatMap(bytes -> put(bytes, number, names, value))
                    .map(text -> wanted(picture, files, part, text)));
  }

  /** The file of a plugin that holds its number: the manifest, or another one beside it. */
  private static Optional<PluginFiles.Part> part(Picture picture, PluginFiles files, String below) {
    for (PluginFiles.Part p : files.parts()) if (p.below().equals(below)) return Optional.of(p);
    Holdings holdings = picture.holdings();
    int id = holdings.idOf(GamePath.join(files.folder(), below));
    int slot = id < 0 ? -1 : picture.standing().inPlay(id);
    if (slot < 0 || holdings.holderAt(slot).pack().isPresent()) return Optional.empty();
    return Optional.of(
        new PluginFiles.Part(
            below, holdings.holderAt(slot).mod(), holdings.spellingAt(slot), holdings.shaAt(slot)));
  }

  private static Optional<byte[]> put(
      byte[] bytes, OrderNumber number, List<String> names, long value) {
    try {
      DecodedText was = DecodedText.of(bytes);
      return was.form()
          .encode(
              JsonPlace.put(was.text(), number.reading().lenient(), names, Long.toString(value)));
    } catch (JsonPlace.NoPlace e) {
      return Optional.empty();
    }
  }

  private static Wanted wanted(
      Picture picture, PluginFiles files, PluginFiles.Part part, byte[] text) {
    int id = picture.holdings().idOf(GamePath.join(files.folder(), part.below()));
    return new Wanted(
        picture.spelling().of(id),
        ContentHash.of(text),
        text.length,
        part.mod(),
        "Ironing",
        Writer.NOBODY,
        new Content.Text(text));
  }
}
