package ironing.core.yaml;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.IroningException;
import ironing.core.Problem;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.common.ScalarStyle;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;
import org.snakeyaml.engine.v2.schema.FailsafeSchema;

/**
 * One YAML file being read: hands out its values and gathers what is wrong, so that a user sees all
 * mistakes at once.
 *
 * <p>Every scalar is text here ({@code on} is a word and {@code 1.10} a version), and whoever asks
 * for a number or a truth says so. Aliases are refused: no format of ours needs them, and a few
 * lines of them can unfold to gigabytes.
 */
public final class YamlDocument {
  /** No format of ours nests so deep. */
  private static final int DEEPEST = 100;

  private final String file;
  private final List<Problem> problems = new ArrayList<>();
  private final List<Problem> warnings = new ArrayList<>();

  private YamlDocument(String file) {
    this.file = file;
  }

  /** A mapping of the document, which remembers which of its keys were asked for. */
  public final class Section {
    private final MappingNode node;
    private final Map<String, Node> values = new LinkedHashMap<>();
    private final Set<String> asked = new HashSet<>();

    private Section(MappingNode node) {
      this.node = node;
      for (NodeTuple t : node.getValue()) {
        if (!(t.getKeyNode() instanceof ScalarNode key)) {
          problem(t.getKeyNode(), "a key must be a word", "Write it as text.");
        } else if (values.put(key.getValue(), t.getValueNode()) != null) {
          problem(key, "the key “" + key.getValue() + "” stands here twice", "Keep one of them.");
        }
      }
    }

    /** Where it begins, as it stands behind the name of the file: “, line 4, column 7”. */
    public String place() {
      return where(node.getStartMark());
    }

    public Set<String> keys() {
      return values.keySet();
    }

    public boolean has(String key) {
      return values.containsKey(key);
    }

    /** Whether the value of a key is one word or text, and not a list or a mapping. */
    public boolean isText(String key) {
      return values.get(key) instanceof ScalarNode;
    }

    public String required(String key) {
      Optional<String> v = text(key);
      if (v.isEmpty() && !values.containsKey(key)) {
        problem(
            node, "“" + key + "” is missing", "Add it: this file cannot be understood without.");
      }
      return v.orElse("");
    }

    public Optional<String> text(String key) {
      Node n = ask(key);
      if (n == null) return Optional.empty();
      if (n instanceof ScalarNode s) return Optional.of(s.getValue());
      problem(n, "“" + key + "” must be one value", "Write a word or a text here.");
      return Optional.empty();
    }

    public int number(String key, int otherwise) {
      Optional<String> t = text(key);
      if (t.isEmpty()) return otherwise;
      try {
        return Integer.parseInt(t.get().trim());
      } catch (NumberFormatException e) {
        problem(
            values.get(key),
            "“" + key + "” must be a whole number and is “" + t.get() + "”",
            "Write digits only.");
        return otherwise;
      }
    }

    public boolean truth(String key, boolean otherwise) {
      Optional<String> text = text(key);
      if (text.isEmpty()) return otherwise;
      if (text.get().equals("true") || text.get().equals("false")) return text.get().equals("true");
      reject(key, "“" + text.get() + "” is neither true nor false", "Write true or false.");
      return otherwise;
    }

    /** The texts of a list; a single text counts as a list of one. */
    public List<String> texts(String key) {
      Node n = ask(key);
      if (n == null) return List.of();
      if (n instanceof ScalarNode s) return List.of(s.getValue());
      List<String> out = new ArrayList<>();
      if (n instanceof SequenceNode seq) {
        for (Node item : seq.getValue()) {
          if (item instanceof ScalarNode s) out.add(s.getValue());
          else
            problem(item, "an item of “" + key + "” must be text", "Write a word or a text here.");
        }
      } else {
        problem(n, "“" + key + "” must be a list", "Write [ one, two ].");
      }
      return out;
    }

    public Optional<Section> section(String key) {
      Node n = ask(key);
      if (n == null) return Optional.empty();
      if (n instanceof MappingNode m) return Optional.of(new Section(m));
      problem(n, "“" + key + "” must have keys of its own", "Write { key: value }.");
      return Optional.empty();
    }

    public List<Section> sections(String key) {
      Node n = ask(key);
      List<Section> out = new ArrayList<>();
      if (n == null) return out;
      if (n instanceof SequenceNode seq) {
        for (Node item : seq.getValue()) {
          if (item instanceof MappingNode m) out.add(new Section(m));
          else
            problem(
                item,
                "an item of “" + key + "” must have keys of its own",
                "Write { key: value }.");
        }
      } else {
        problem(n, "“" + key + "” must be a list", "Write one item a line, each after a dash.");
      }
      return out;
    }

    /**
     * Whatever stands there, as JSON has it: words without quotes that are true, false, null or a
     * whole number are such, all else is text.
     */
    public Optional<JsonNode> tree(String key) {
      Node n = ask(key);
      return n == null ? Optional.empty() : Optional.of(plain(n));
    }

    private JsonNode plain(Node n) {
      JsonNodeFactory json = JsonNodeFactory.instance;
      if (n instanceof ScalarNode s) {
        boolean word = s.getScalarStyle() == ScalarStyle.PLAIN;
        if (word && s.getValue().equals("null")) return json.nullNode();
        if (word && s.getValue().matches("true|false"))
          return json.booleanNode(s.getValue().equals("true"));
        if (word && s.getValue().matches("-?[0-9]{1,18}"))
          return json.numberNode(Long.parseLong(s.getValue()));
        return json.textNode(s.getValue());
      }
      if (n instanceof SequenceNode seq) {
        ArrayNode list = json.arrayNode();
        seq.getValue().forEach(item -> list.add(plain(item)));
        return list;
      }
      ObjectNode map = json.objectNode();
      for (NodeTuple t : ((MappingNode) n).getValue()) {
        if (!(t.getKeyNode() instanceof ScalarNode k))
          problem(t.getKeyNode(), "a key must be a word", "Write it as text.");
        else if (map.has(k.getValue()))
          problem(k, "the key “" + k.getValue() + "” stands here twice", "Keep one of them.");
        else map.set(k.getValue(), plain(t.getValueNode()));
      }
      return map;
    }

    /** Notes a problem at the value of a key, or at the section when the key is not there. */
    public void reject(String key, String reason, String remedy) {
      problem(values.getOrDefault(key, node), reason, remedy);
    }

    /** Passes over a key that this version knows and does not use yet. */
    public void known(String... keys) {
      asked.addAll(List.of(keys));
    }

    /** To call last: whatever nobody asked for is a warning, never an error. */
    public void warnOfUnknownKeys() {
      for (String key : values.keySet()) {
        if (!asked.contains(key)) {
          warnings.add(
              at(
                  values.get(key),
                  "the key “" + key + "” is not known and was passed over",
                  "Check its spelling."));
        }
      }
    }

    private Node ask(String key) {
      asked.add(key);
      return values.get(key);
    }
  }

  /**
   * Reads a text as YAML 1.2.
   *
   * @param file the name to call it by in problems
   * @return what {@code reading} made of it
   * @throws IroningException with every problem found, code {@code yaml-invalid}
   */
  public static <T> Read<T> read(String file, String text, Reading<T> reading) {
    YamlDocument doc = new YamlDocument(file);
    T value = null;
    try {
      LoadSettings settings =
          LoadSettings.builder()
              .setSchema(new FailsafeSchema())
              .setMaxAliasesForCollections(0)
              .setCodePointLimit(4 * 1024 * 1024)
              .setLabel(file)
              .build();
      String plain = text.startsWith("\uFEFF") ? text.substring(1) : text;
      Optional<Mark> deeper = YamlDepth.deeper(settings, plain, DEEPEST);
      if (deeper.isPresent())
        throw IroningException.of(
            "yaml-invalid",
            file + where(deeper),
            "It is nested more than " + DEEPEST + " deep here.",
            "No file of this kind is: see that it is the one that you mean.");
      // before any is followed: a few lines of them can unfold to gigabytes
      Optional<Mark> alias = YamlDepth.alias(settings, plain);
      if (alias.isPresent())
        throw IroningException.of(
            "yaml-invalid",
            file + where(alias),
            "It uses anchors and aliases (& and *).",
            "Write the values out.");
      Optional<Node> root = new Compose(settings).composeString(plain);
      if (root.isPresent() && root.get() instanceof MappingNode m) {
        value = reading.from(doc.new Section(m));
      } else {
        doc.problems.add(
            new Problem(
                "yaml-invalid",
                file,
                "It holds no keys.",
                "Compare it with the example in docs/formats."));
      }
    } catch (MarkedYamlEngineException e) {
      doc.problems.add(
          new Problem(
              "yaml-invalid",
              file + where(e.getProblemMark()),
              "This is not YAML: " + e.getProblem() + ".",
              "Mend the line and try again."));
    } catch (YamlEngineException e) {
      doc.problems.add(
          new Problem(
              "yaml-invalid",
              file,
              "This is not YAML: " + e.getMessage() + ".",
              "Mend the file and try again."));
    }
    if (!doc.problems.isEmpty()) throw new IroningException(doc.problems);
    return new Read<>(value, List.copyOf(doc.warnings));
  }

  /** What a file says, and what in it was passed over. */
  public record Read<T>(T value, List<Problem> warnings) {}

  /** Turns the document's top mapping into a value, noting problems as it goes. */
  public interface Reading<T> {
    T from(Section top);
  }

  private void problem(Node n, String reason, String remedy) {
    problems.add(at(n, reason, remedy));
  }

  private Problem at(Node n, String reason, String remedy) {
    return new Problem(
        "yaml-invalid",
        file + where(n.getStartMark()),
        Character.toUpperCase(reason.charAt(0)) + reason.substring(1) + ".",
        remedy);
  }

  private static String where(Optional<Mark> mark) {
    return mark.map(m -> ", line " + (m.getLine() + 1) + ", column " + (m.getColumn() + 1))
        .orElse("");
  }
}
