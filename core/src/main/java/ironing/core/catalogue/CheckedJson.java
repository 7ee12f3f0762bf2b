package ironing.core.catalogue;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import ironing.core.IroningException;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.regex.Pattern;

/**
 * An object of a document of JSON that is read member by member, with every mistake noted by its
 * JSON Pointer (RFC 6901). A mistake gives a value that can be gone on with.
 */
final class CheckedJson {
  static final int DEEPEST = 64;

  private static final Pattern ID = Pattern.compile("[a-z0-9-]{1,64}");
  private static final Pattern SHA256 = Pattern.compile("[0-9a-f]{64}");

  /** Ranges by their text: few are said, and each by very many. */
  private static final Map<String, VersionRange> RANGES = new ConcurrentHashMap<>();

  private static final int MOST_RANGES = 10_000;

  /** The most characters of a version, a range, a variant or a tag. */
  private static final int SHORT = 200;

  /** The most characters of a name. */
  private static final int NAME = 500;

  private static final ObjectMapper JSON =
      JsonMapper.builder(
              JsonFactory.builder()
                  .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                  .streamReadConstraints(
                      StreamReadConstraints.builder()
                          .maxNestingDepth(DEEPEST)
                          .maxNumberLength(40)
                          .maxStringLength(Catalogue.LARGEST)
                          .build())
                  .build())
          .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
          .build();

  private final JsonNode node;
  private final String place;
  private final List<String> mistakes;
  private final Set<String> asked = new HashSet<>();

  private CheckedJson(JsonNode node, String place, List<String> mistakes) {
    this.node = node;
    this.place = place;
    this.mistakes = mistakes;
  }

  /**
   * Reads a whole document.
   *
   * @param mistakes gets what is wrong with it
   */
  static CheckedJson read(byte[] bytes, List<String> mistakes) {
    try {
      String text = StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
      JsonNode node = JSON.readTree(text);
      if (node.isObject()) return new CheckedJson(node, "", mistakes);
      mistakes.add("is no JSON object");
    } catch (CharacterCodingException e) {
      mistakes.add("is no UTF-8");
    } catch (IOException e) {
      mistakes.add("is no JSON: " + firstLine(e));
    }
    return new CheckedJson(MissingNode.getInstance(), "", mistakes);
  }

  private static String firstLine(Exception e) {
    String message = e.getMessage() == null ? "it cannot be read" : e.getMessage();
    return message.lines().findFirst().orElse("").replaceFirst(" \\(start marker.*", "");
  }

  boolean has(String key) {
    return !node.path(key).isMissingNode() && !node.path(key).isNull();
  }

  /** The text of a member; empty where there is none. */
  String text(String key) {
    asked.add(key);
    JsonNode v = node.path(key);
    if (v.isMissingNode() || v.isNull()) return "";
    if (!v.isTextual()) return wrong(key, "is no text", "");
    return isPlain(v.textValue()) ? v.textValue() : wrong(key, NOT_PLAIN, "");
  }

  private static final String NOT_PLAIN = "holds what is no character";

  /** Whether a text can be written as UTF-8 and kept: no half of a pair, no character 0. */
  private static boolean isPlain(String text) {
    // a pair is one code point; half of one stays what it is
    return text.codePoints()
        .noneMatch(c -> c == 0 || (c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE));
  }

  /** A short text, such as a version: what is kept of it is an entry of an index. */
  String shortText(String key) {
    return notLonger(key, text(key), SHORT);
  }

  String notLonger(String key, String text, int most) {
    return text.length() <= most
        ? text
        : wrong(key, "has more than " + most + " characters", text.substring(0, 1));
  }

  String required(String key) {
    String text = text(key);
    if (text.isEmpty() && !(has(key) && !node.path(key).isTextual())) wrong(key, "is missing", "");
    return text;
  }

  /** What a thing is called. */
  String name(String key) {
    return notLonger(key, required(key), NAME);
  }

  String id(String key) {
    String text = required(key);
    if (text.isEmpty() || ID.matcher(text).matches()) return text;
    return wrong(key, "is no id: lower-case letters, digits and hyphens, at most 64", text);
  }

  String sha256(String key) {
    String text = required(key);
    if (text.isEmpty() || SHA256.matcher(text).matches()) return text;
    return wrong(key, "is no SHA-256: 64 lower-case hexadecimal digits", text);
  }

  boolean flag(String key) {
    asked.add(key);
    JsonNode v = node.path(key);
    if (v.isMissingNode() || v.isNull()) return false;
    return v.isBoolean() ? v.booleanValue() : wrong(key, "is neither true nor false", false);
  }

  /** A day; empty where there is none. */
  String day(String key) {
    String text = text(key);
    try {
      return text.isEmpty() ? "" : LocalDate.parse(text).toString();
    } catch (DateTimeException e) {
      return wrong(key, "is no day such as 2026-11-20", "");
    }
  }

  /** A whole number from 0 up. */
  long number(String key) {
    asked.add(key);
    JsonNode v = node.path(key);
    if (v.isIntegralNumber() && v.canConvertToLong() && v.longValue() >= 0) return v.longValue();
    return wrong(key, "is no whole number from 0 up", 0L);
  }

  <E extends Enum<E>> E oneOf(String key, Class<E> words, E otherwise) {
    String text = text(key);
    if (text.isEmpty()) return otherwise;
    for (E e : words.getEnumConstants()) if (word(e).equals(text)) return e;
    List<String> all = new ArrayList<>();
    for (E e : words.getEnumConstants()) all.add(word(e));
    return wrong(key, "is none of " + String.join(", ", all), otherwise);
  }

  private static String word(Enum<?> e) {
    return e.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
  }

  ModVersion version(String key) {
    return ModVersion.of(notLonger(key, required(key), SHORT));
  }

  /** A range of versions; any where there is none. */
  VersionRange range(String key) {
    String text = text(key);
    if (text.isEmpty()) return VersionRange.of("*");
    if (text.length() > SHORT)
      return wrong(key, "has more than " + SHORT + " characters", VersionRange.of("*"));
    try {
      return RANGES.computeIfAbsent(text, VersionRange::of);
    } catch (IroningException e) {
      return wrong(key, "is no range of versions", VersionRange.of("*"));
    } finally {
      if (RANGES.size() > MOST_RANGES) RANGES.clear();
    }
  }

  List<String> texts(String key) {
    List<String> out = new ArrayList<>();
    for (JsonNode v : array(key)) {
      if (!v.isTextual()) wrong(key + "/" + out.size(), "is no text", "");
      else if (!isPlain(v.textValue())) wrong(key + "/" + out.size(), NOT_PLAIN, "");
      else out.add(notLonger(key + "/" + out.size(), v.textValue(), SHORT));
    }
    return List.copyOf(out);
  }

  <T> List<T> each(String key, Function<CheckedJson, T> read) {
    List<T> out = new ArrayList<>();
    int i = 0;
    for (JsonNode v : array(key)) {
      CheckedJson item = new CheckedJson(v, place + "/" + key + "/" + i++, mistakes);
      if (v.isObject()) out.add(read.apply(item));
      else mistakes.add(item.place + " is no object");
    }
    return List.copyOf(out);
  }

  CheckedJson object(String key) {
    asked.add(key);
    JsonNode v = node.path(key);
    if (!v.isObject()) wrong(key, v.isMissingNode() ? "is missing" : "is no object", "");
    return new CheckedJson(v, place + "/" + key, mistakes);
  }

  List<String> keys() {
    List<String> out = new ArrayList<>();
    node.fieldNames().forEachRemaining(out::add);
    return out;
  }

  /** The members that nobody has asked for, by their places. */
  List<String> unknown() {
    return keys().stream().filter(k -> !asked.contains(k)).map(k -> place + "/" + k).toList();
  }

  <T> T wrong(String key, String what, T instead) {
    mistakes.add(place + "/" + key + " " + what);
    return instead;
  }

  private JsonNode array(String key) {
    asked.add(key);
    JsonNode v = node.path(key);
    if (v.isMissingNode() || v.isNull() || v.isArray()) return v;
    return wrong(key, "is no list", MissingNode.getInstance());
  }
}
