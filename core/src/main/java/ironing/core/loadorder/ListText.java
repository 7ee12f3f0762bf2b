package ironing.core.loadorder;

import ironing.core.game.GameDefinition;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.path.PathCase;
import ironing.core.text.DecodedText;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The list file that tells the game its load order: one line for each plugin, the last one ended
 * too, or an array in a document.
 */
public final class ListText {
  private ListText() {}

  /**
   * What a list file says.
   *
   * @param wishes from the first to load; the game's own, where they are named, among them
   * @param remarks what could not be understood, each a sentence
   */
  public record Told(List<Wish> wishes, List<String> remarks) {}

  /** Reads a list that the game or a person may have changed. A name counts at its first place. */
  public static Told read(GameDefinition.ListFile list, byte[] file) {
    DecodedText decoded = DecodedText.of(file);
    if (list.inside().isPresent()) return ListInDocument.read(list.inside().get(), decoded.text());
    List<String> remarks = new ArrayList<>();
    decoded.remark().ifPresent(remarks::add);
    List<Wish> wishes = new ArrayList<>();
    Set<String> seen = new HashSet<>();
    int number = 0;
    for (String line : decoded.text().split("\\R", -1)) {
      number++;
      if (line.isBlank()) continue;
      Optional<String> on = name(list.on(), line);
      Optional<String> off = list.off().flatMap(o -> name(o, line));
      if (on.isEmpty() && off.isEmpty()) {
        remarks.add("Line " + number + " is not of its form: “" + cut(line) + "”.");
        continue;
      }
      // where both forms fit, the longer one says more
      boolean isOn =
          off.isEmpty() || on.isPresent() && list.on().length() > list.off().get().length();
      String name = isOn ? on.get() : off.get();
      if (seen.add(PathCase.fold(name))) wishes.add(new Wish(name, isOn));
      else remarks.add("Line " + number + " names " + name + " again; its first place counts.");
    }
    return new Told(List.copyOf(wishes), List.copyOf(remarks));
  }

  private static String cut(String line) {
    return line.length() <= 60 ? line : line.substring(0, 59) + "…";
  }

  private static Optional<String> name(String form, String line) {
    int at = form.indexOf("{name}");
    String before = form.substring(0, at), after = form.substring(at + "{name}".length());
    boolean fits =
        line.length() > before.length() + after.length()
            && line.startsWith(before)
            && line.endsWith(after);
    return fits
        ? Optional.of(line.substring(before.length(), line.length() - after.length()).strip())
        : Optional.empty();
  }

  /**
   * @param before the file as the unmodded game has it; of a list inside of a document all else
   *     stays
   */
  public static byte[] bytes(
      GameDefinition.ListFile list, LoadOrder order, Optional<byte[]> before) {
    Optional<DecodedText> was = before.filter(b -> list.inside().isPresent()).map(DecodedText::of);
    String text =
        list.inside().isPresent()
            ? ListInDocument.write(list, order, was.map(DecodedText::text).orElse(""))
            : lines(list, order);
    // a name may have letters that the encoding of the file has not
    return was.flatMap(w -> w.form().encode(text))
        .orElseGet(() -> text.getBytes(StandardCharsets.UTF_8));
  }

  private static String lines(GameDefinition.ListFile list, LoadOrder order) {
    StringBuilder out = new StringBuilder();
    for (Entry e : order.entries()) {
      if (e.own() && list.omitOwn()) continue;
      // a game without a word for "off" does not get to see such a plugin at all
      if (e.on()) out.append(list.on().replace("{name}", e.name())).append(list.newline());
      else
        list.off()
            .ifPresent(off -> out.append(off.replace("{name}", e.name())).append(list.newline()));
    }
    return out.toString();
  }
}
