package ironing.core.query;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.BooleanNode;
import com.fasterxml.jackson.databind.node.DecimalNode;
import com.fasterxml.jackson.databind.node.NullNode;
import com.fasterxml.jackson.databind.node.TextNode;
import ironing.core.query.JsonPath.Selector;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads the text of a JSONPath expression, as the grammar of RFC 9535 has it. */
final class JsonPathReader {
  private static final int LONGEST = 1_000;
  private static final int DEEPEST = 50;
  private static final long MOST_INDEX = (1L << 53) - 1;
  private static final Pattern INTEGER = Pattern.compile("-?[1-9][0-9]*|0");
  private static final Pattern NUMBER =
      Pattern.compile("(-?[1-9][0-9]*|0|-0)(\\.[0-9]+)?([eE][+-]?[0-9]{1,3})?");

  private final String text;
  private int at;
  private int depth;

  JsonPathReader(String text) {
    this.text = text;
  }

  JsonPath whole() {
    if (text.length() > LONGEST) throw wrong("the expression is longer than " + LONGEST);
    if (!take("$")) throw wrong("a JSONPath begins with $");
    List<List<Selector>> segments = segments();
    if (at < text.length()) throw wrong("nothing is expected here");
    return new JsonPath(text, segments);
  }

  private QuerySyntax wrong(String reason) {
    return new QuerySyntax(at + 1, reason);
  }

  private boolean take(String word) {
    if (!text.startsWith(word, at)) return false;
    at += word.length();
    return true;
  }

  private void need(String word) {
    if (!take(word)) throw wrong("“" + word + "” is expected here");
  }

  private void blanks() {
    while (at < text.length() && " \t\r\n".indexOf(text.charAt(at)) >= 0) at++;
  }

  private List<List<Selector>> segments() {
    List<List<Selector>> segments = new ArrayList<>();
    while (true) {
      int before = at;
      blanks();
      if (text.startsWith("..", at)) throw wrong("descendants (..) are not read: name the way");
      if (take(".")) segments.add(List.of(take("*") ? new Selector.Any() : shortName()));
      else if (take("[")) segments.add(bracketed());
      else {
        at = before;
        return segments;
      }
    }
  }

  private Selector shortName() {
    int from = at;
    while (at < text.length() && isOfName(text.codePointAt(at), at > from))
      at += Character.charCount(text.codePointAt(at));
    if (at == from) throw wrong("a name is expected behind the dot");
    return new Selector.Name(text.substring(from, at));
  }

  private static boolean isOfName(int c, boolean further) {
    return c == '_'
        || c >= 'a' && c <= 'z'
        || c >= 'A' && c <= 'Z'
        || c >= 0x80 && !(c >= 0xD800 && c <= 0xDFFF)
        || further && c >= '0' && c <= '9';
  }

  private List<Selector> bracketed() {
    List<Selector> all = new ArrayList<>();
    do {
      blanks();
      all.add(selector());
      blanks();
    } while (take(","));
    need("]");
    return all;
  }

  private Selector selector() {
    if (take("*")) return new Selector.Any();
    if (take("?")) {
      blanks();
      return new Selector.Filter(or());
    }
    if (at < text.length() && (text.charAt(at) == '\'' || text.charAt(at) == '"'))
      return new Selector.Name(quoted());
    Optional<Long> first = integer();
    int behind = at;
    blanks();
    if (!take(":")) {
      at = behind;
      return new Selector.Index(
          first.orElseThrow(() -> wrong("a name in quotes, a number, * or ? is expected here")));
    }
    blanks();
    Optional<Long> to = integer();
    behind = at;
    blanks();
    if (!take(":")) {
      at = behind;
      return new Selector.Slice(first, to, 1);
    }
    blanks();
    return new Selector.Slice(first, to, integer().orElse(1L));
  }

  private Optional<Long> integer() {
    Matcher m = INTEGER.matcher(text).region(at, text.length());
    if (!m.lookingAt()) return Optional.empty();
    BigDecimal n = new BigDecimal(m.group());
    if (n.abs().compareTo(BigDecimal.valueOf(MOST_INDEX)) > 0)
      throw wrong("the number is out of range");
    at = m.end();
    return Optional.of(n.longValue());
  }

  private String quoted() {
    char quote = text.charAt(at++);
    StringBuilder out = new StringBuilder();
    while (true) {
      if (at >= text.length()) throw wrong("the text is not closed");
      char c = text.charAt(at++);
      if (c == quote) return out.toString();
      if (c < 0x20) throw wrong("a control character stands in the text");
      out.append(c == '\\' ? escaped(quote) : String.valueOf(c));
    }
  }

  private String escaped(char quote) {
    if (at >= text.length()) throw wrong("the text is not closed");
    char c = text.charAt(at++);
    if (c == quote || c == '\\' || c == '/') return String.valueOf(c);
    int known = "bfnrt".indexOf(c);
    if (known >= 0) return String.valueOf("\b\f\n\r\t".charAt(known));
    if (c != 'u') throw wrong("this escape means nothing");
    char high = unit();
    if (Character.isLowSurrogate(high)) throw wrong("half of a pair stands alone");
    if (!Character.isHighSurrogate(high)) return String.valueOf(high);
    need("\\u");
    char low = unit();
    if (!Character.isLowSurrogate(low)) throw wrong("half of a pair stands alone");
    return new String(new char[] {high, low});
  }

  private char unit() {
    if (at + 4 > text.length() || !text.substring(at, at + 4).matches("[0-9A-Fa-f]{4}"))
      throw wrong("four hexadecimal digits are expected");
    at += 4;
    return (char) Integer.parseInt(text.substring(at - 4, at), 16);
  }

  private JsonFilter or() {
    if (++depth > DEEPEST) throw wrong("the filter is nested deeper than " + DEEPEST);
    List<JsonFilter> any = new ArrayList<>();
    do {
      blanks();
      any.add(and());
      blanks();
    } while (take("||"));
    depth--;
    return any.size() == 1 ? any.get(0) : new JsonFilter.Or(any);
  }

  private JsonFilter and() {
    List<JsonFilter> all = new ArrayList<>();
    do {
      blanks();
      all.add(basic());
      blanks();
    } while (take("&&"));
    return all.size() == 1 ? all.get(0) : new JsonFilter.And(all);
  }

  private JsonFilter basic() {
    boolean not = take("!");
    if (not) blanks();
    if (take("(")) {
      JsonFilter inner = or();
      blanks();
      need(")");
      return not ? new JsonFilter.Not(inner) : inner;
    }
    int from = at;
    JsonFilter.Side left = side();
    int behind = at;
    blanks();
    String how = not ? "" : comparison();
    if (how.isEmpty()) {
      at = behind;
      if (!(left instanceof JsonFilter.Inner q)) {
        at = from;
        throw wrong("a value alone asks nothing: compare it");
      }
      JsonFilter exists = new JsonFilter.Exists(q);
      return not ? new JsonFilter.Not(exists) : exists;
    }
    blanks();
    singular(left, from);
    from = at;
    JsonFilter.Side right = side();
    singular(right, from);
    return new JsonFilter.Compare(left, how, right);
  }

  private void singular(JsonFilter.Side side, int from) {
    if (!(side instanceof JsonFilter.Inner q) || q.path().isSingular()) return;
    at = from;
    throw wrong("only what can match one place at the most can be compared");
  }

  private String comparison() {
    for (String how : List.of("==", "!=", "<=", ">=", "<", ">")) if (take(how)) return how;
    return "";
  }

  private JsonFilter.Side side() {
    if (take("@")) return new JsonFilter.Inner(new JsonPath("@", segments()), false);
    if (take("$")) return new JsonFilter.Inner(new JsonPath("$", segments()), true);
    return new JsonFilter.Literal(literal());
  }

  private JsonNode literal() {
    if (at < text.length() && (text.charAt(at) == '\'' || text.charAt(at) == '"'))
      return TextNode.valueOf(quoted());
    if (take("true")) return BooleanNode.TRUE;
    if (take("false")) return BooleanNode.FALSE;
    if (take("null")) return NullNode.getInstance();
    Matcher m = NUMBER.matcher(text).region(at, text.length());
    if (!m.lookingAt()) throw wrong("a value, @ or $ is expected here; functions are not read");
    at = m.end();
    return DecimalNode.valueOf(new BigDecimal(m.group()));
  }
}
