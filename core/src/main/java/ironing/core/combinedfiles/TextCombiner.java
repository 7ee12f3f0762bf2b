package ironing.core.combinedfiles;

import ironing.core.combinedfiles.CombinedFile.Piece;
import ironing.core.combinedfiles.LineMerge.Part;
import ironing.core.combinedfiles.LineMerge.Stretch;
import ironing.core.combinedfiles.Place.Side;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Combines texts by lines. The line ends and the final newline are the base's.
 *
 * <p>Threads: one combiner, one thread. Cost: see {@link LineMerge}.
 */
final class TextCombiner {
  private final Lines base;
  private final List<String> ids;
  private final List<Lines> sides;
  private final Places places;
  private final String usualEnd;
  private final List<Piece> pieces = new ArrayList<>();
  private final StringBuilder out = new StringBuilder();

  /**
   * @param ids of the sides, in layer order
   */
  TextCombiner(String base, List<String> ids, List<String> texts, Places places) {
    Lines.Numbers numbers = new Lines.Numbers(base.length());
    this.base = new Lines(base, numbers);
    this.ids = ids;
    this.sides = texts.stream().map(t -> new Lines(t, numbers, this.base)).toList();
    this.places = places;
    this.usualEnd = Lines.usualEnd(base.isEmpty() ? texts.get(0) : base);
  }

  /** The outcome; the places are gathered on the way. */
  String combine() {
    for (Stretch s : LineMerge.of(base, sides)) {
      if (s.isUnchanged()) unchanged(s.from(), s.to());
      else changed(s);
    }
    boolean ended = base.size() > 0 ? base.endsLast() : sides.get(0).endsLast();
    if (!ended) cutLastEnd();
    return out.toString();
  }

  List<Piece> pieces() {
    return pieces;
  }

  private void unchanged(int from, int to) {
    int start = out.length();
    for (int i = from; i < to; i++) {
      String end = base.endOfLine(i);
      out.append(base.line(i)).append(end.isEmpty() ? usualEnd : end);
    }
    piece(start, List.of(), -1);
  }

  private void piece(int start, List<String> of, int place) {
    if (out.length() > start) pieces.add(new Piece(out.substring(start), of, place));
  }

  private void changed(Stretch s) {
    List<Part> parts = s.sides();
    int head = 0, tail = 0;
    if (!allAlike(parts)) {
      // what all who changed it have alike at its ends is no part of the question
      while (alikeAt(parts, head, true)) head++;
      while (alikeAt(parts, tail, false) && fits(parts, head + tail + 1)) tail++;
    }
    taken(parts, head, true);
    question(s, parts, head, tail);
    taken(parts, tail, false);
  }

  private boolean allAlike(List<Part> parts) {
    Part first = parts.get(0);
    return parts.stream()
        .allMatch(p -> lines(p).same(p.from(), p.to(), lines(first), first.from(), first.to()));
  }

  private Lines lines(Part p) {
    return sides.get(p.side());
  }

  private boolean alikeAt(List<Part> parts, int offset, boolean front) {
    if (!fits(parts, offset + 1)) return false;
    Part first = parts.get(0);
    int number = lines(first).number(front ? first.from() + offset : first.to() - 1 - offset);
    return parts.stream()
        .allMatch(p -> lines(p).number(front ? p.from() + offset : p.to() - 1 - offset) == number);
  }

  private static boolean fits(List<Part> parts, int count) {
    return parts.stream().allMatch(p -> p.to() - p.from() >= count);
  }

  // lines that all have alike
  private void taken(List<Part> parts, int count, boolean front) {
    if (count == 0) return;
    Part p = parts.get(0);
    int from = front ? p.from() : p.to() - count;
    List<String> of = parts.stream().map(x -> ids.get(x.side())).toList();
    int start = out.length();
    append(lines(p).text(from, from + count));
    piece(start, of, -1);
  }

  private void question(Stretch s, List<Part> parts, int head, int tail) {
    List<String> of = new ArrayList<>();
    List<Optional<String>> texts = new ArrayList<>();
    List<Integer> prints = new ArrayList<>();
    for (Part p : parts) {
      of.add(ids.get(p.side()));
      texts.add(Optional.of(lines(p).text(p.from() + head, p.to() - tail)));
      prints.add(firstAlike(texts));
    }
    List<Side> alike = Places.alike(of, texts, prints);
    Optional<String> was = Optional.of(base.text(s.from(), s.to()));
    Place place = places.add("", where(s), was, alike, true);
    int start = out.length();
    append(place.outcome().orElse(""));
    piece(start, place.from(), places.size() - 1);
  }

  private static int firstAlike(List<Optional<String>> texts) {
    return texts.indexOf(texts.get(texts.size() - 1));
  }

  private String where(Stretch s) {
    if (s.from() == s.to()) return s.from() == 0 ? "at the top" : "behind line " + s.from();
    return s.to() - s.from() == 1 ? "line " + s.to() : "lines " + (s.from() + 1) + "–" + s.to();
  }

  /**
   * Lines that are ended by LF, as the base ends its own; a last one may have been typed without.
   */
  private void append(String lines) {
    if (lines.isEmpty()) return;
    String whole = lines.endsWith("\n") ? lines : lines + "\n";
    out.append(usualEnd.equals("\n") ? whole : whole.replace("\n", usualEnd));
  }

  private void cutLastEnd() {
    if (pieces.isEmpty()) return;
    Piece last = pieces.get(pieces.size() - 1);
    for (String end : List.of("\r\n", "\n", "\r")) {
      // by the piece: a CR that ends the line before an empty one is not of its LF
      if (!last.text().endsWith(end)) continue;
      out.setLength(out.length() - end.length());
      pieces.remove(pieces.size() - 1);
      String text = last.text().substring(0, last.text().length() - end.length());
      if (!text.isEmpty()) pieces.add(new Piece(text, last.of(), last.place()));
      return;
    }
  }
}
