package ironing.core.documents;

import com.ctc.wstx.api.WstxInputProperties;
import com.ctc.wstx.stax.WstxInputFactory;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.json.JsonReadFeature;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.cfg.JsonNodeFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import ironing.core.game.DocumentPlugins.Form;
import ironing.core.game.DocumentPlugins.Reading;
import ironing.core.text.DecodedText;
import ironing.core.yaml.YamlDepth;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.math.BigInteger;
import java.util.List;
import java.util.Map;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;

/**
 * Documents as trees. Names that stand twice in one object, document types, and what is nested too
 * deep are refused.
 *
 * <p>Threads: stateless.
 */
final class Trees {
  static final int LARGEST = 64 << 20;
  private static final int DEEPEST = 200;

  private static final JsonMapper STRICT = json(false), LENIENT = json(true);
  private static final LoadSettings YAML =
      LoadSettings.builder()
          .setMaxAliasesForCollections(0)
          .setAllowDuplicateKeys(false)
          .setCodePointLimit(LARGEST)
          .build();
  private static final XMLInputFactory XML = xml();

  private Trees() {}

  private static JsonMapper json(boolean lenient) {
    JsonMapper.Builder b =
        JsonMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_READING_DUP_TREE_KEY)
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS)
            .configure(JsonReadFeature.ALLOW_JAVA_COMMENTS, lenient)
            .configure(JsonReadFeature.ALLOW_TRAILING_COMMA, lenient)
            // looking for zeros to take away costs more than they do
            .disable(JsonNodeFeature.STRIP_TRAILING_BIGDECIMAL_ZEROES);
    JsonMapper mapper = b.build();
    mapper
        .getFactory()
        .setStreamReadConstraints(
            StreamReadConstraints.builder()
                .maxNestingDepth(DEEPEST)
                .maxStringLength(LARGEST)
                .maxNumberLength(1_000)
                .build());
    return mapper;
  }

  private static XMLInputFactory xml() {
    XMLInputFactory f = new WstxInputFactory();
    f.setProperty(XMLInputFactory.IS_NAMESPACE_AWARE, true);
    f.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    f.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    f.setProperty(WstxInputProperties.P_MAX_ELEMENT_DEPTH, DEEPEST);
    return f;
  }

  private static void requireSize(byte[] bytes) throws Unreadable {
    if (bytes.length > LARGEST)
      throw new Unreadable("it is larger than " + (LARGEST >> 20) + " MiB");
  }

  /** JSON or YAML. */
  static JsonNode tree(Reading reading, byte[] bytes) throws Unreadable {
    requireSize(bytes);
    return reading.as() == Form.YAML
        ? yaml(DecodedText.of(bytes).text())
        : json(bytes, reading.lenient());
  }

  private static JsonNode json(byte[] bytes, boolean lenient) throws Unreadable {
    try {
      JsonNode root = (lenient ? LENIENT : STRICT).readTree(bytes);
      if (root.isMissingNode()) throw new Unreadable("it is empty");
      return root;
    } catch (JsonProcessingException e) {
      JsonLocation at = e.getLocation();
      throw new Unreadable(
          "it is not JSON"
              + (at == null ? "" : place(at.getLineNr(), at.getColumnNr()))
              + ": "
              + e.getOriginalMessage());
    } catch (IOException e) {
      throw new Unreadable("it cannot be read: " + e.getMessage());
    }
  }

  private static String place(int line, int column) {
    return " (line " + line + ", column " + column + ")";
  }

  private static JsonNode yaml(String text) throws Unreadable {
    if (YamlDepth.deeper(YAML, text, DEEPEST).isPresent())
      throw new Unreadable("it is nested deeper than " + DEEPEST);
    if (YamlDepth.alias(YAML, text).isPresent())
      throw new Unreadable("it has anchors and aliases, which are not followed");
    try {
      return node(new Load(YAML).loadFromString(text));
    } catch (MarkedYamlEngineException e) {
      String where =
          e.getProblemMark().map(m -> place(m.getLine() + 1, m.getColumn() + 1)).orElse("");
      throw new Unreadable("it is not YAML" + where + ": " + e.getProblem());
    } catch (YamlEngineException e) {
      throw new Unreadable("it is not YAML: " + e.getMessage());
    }
  }

  private static JsonNode node(Object o) throws Unreadable {
    JsonNodeFactory json = JsonNodeFactory.instance;
    if (o == null) return json.nullNode();
    if (o instanceof String s) return json.textNode(s);
    if (o instanceof Boolean b) return json.booleanNode(b);
    if (o instanceof Integer i) return json.numberNode(i.longValue());
    if (o instanceof Long l) return json.numberNode(l);
    if (o instanceof BigInteger b) return json.numberNode(b);
    if (o instanceof Double d) {
      if (d.isNaN() || d.isInfinite()) throw new Unreadable("it holds a number that is not finite");
      return json.numberNode(new java.math.BigDecimal(d.toString()));
    }
    if (o instanceof List<?> list) {
      ArrayNode array = json.arrayNode();
      for (Object item : list) array.add(node(item));
      return array;
    }
    if (o instanceof Map<?, ?> map) {
      ObjectNode object = json.objectNode();
      for (Map.Entry<?, ?> e : map.entrySet()) {
        if (!(e.getKey() instanceof String name))
          throw new Unreadable("one of its keys is no text: " + e.getKey());
        object.set(name, node(e.getValue()));
      }
      return object;
    }
    throw new Unreadable(
        "it holds something that is no plain value: " + o.getClass().getSimpleName());
  }

  /**
   * XML, with names as they are written and as they are meant. Nothing outside is ever looked up.
   */
  static Document xml(byte[] bytes) throws Unreadable {
    requireSize(bytes);
    Document doc = emptyDocument();
    try {
      XMLStreamReader in = XML.createXMLStreamReader(new java.io.ByteArrayInputStream(bytes));
      Node at = doc;
      while (in.hasNext()) {
        switch (in.next()) {
          case XMLStreamReader.DTD ->
              throw new Unreadable("it has a document type, which is not followed");
          case XMLStreamReader.ENTITY_REFERENCE ->
              throw new Unreadable("it has an entity that is not known: " + in.getLocalName());
          case XMLStreamReader.START_ELEMENT -> {
            Element e = element(doc, in);
            at.appendChild(e);
            at = e;
          }
          case XMLStreamReader.END_ELEMENT -> at = at.getParentNode();
          case XMLStreamReader.CHARACTERS, XMLStreamReader.CDATA -> {
            if (at != doc) at.appendChild(doc.createTextNode(in.getText()));
          }
          default -> {
            // comments and instructions say nothing of records
          }
        }
      }
      doc.normalize();
      return doc;
    } catch (XMLStreamException e) {
      String said = e.getMessage() == null ? "" : e.getMessage().lines().findFirst().orElse("");
      throw new Unreadable(
          "it is not XML"
              + (e.getLocation() == null
                  ? ""
                  : place(e.getLocation().getLineNumber(), e.getLocation().getColumnNumber()))
              + ": "
              + said);
    }
  }

  private static Element element(Document doc, XMLStreamReader in) {
    Element e =
        doc.createElementNS(
            blankAsNull(in.getNamespaceURI()), written(in.getPrefix(), in.getLocalName()));
    for (int i = 0; i < in.getAttributeCount(); i++)
      e.setAttributeNS(
          blankAsNull(in.getAttributeNamespace(i)),
          written(in.getAttributePrefix(i), in.getAttributeLocalName(i)),
          in.getAttributeValue(i));
    return e;
  }

  private static String written(String prefix, String name) {
    return prefix == null || prefix.isEmpty() ? name : prefix + ":" + name;
  }

  private static String blankAsNull(String uri) {
    return uri == null || uri.isEmpty() ? null : uri;
  }

  static Document emptyDocument() {
    try {
      DocumentBuilderFactory f = DocumentBuilderFactory.newDefaultInstance();
      f.setNamespaceAware(true);
      f.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
      return f.newDocumentBuilder().newDocument();
    } catch (ParserConfigurationException e) {
      throw new UncheckedIOException(new IOException(e));
    }
  }

  /** The text of a table or of INI. */
  static String text(byte[] bytes) throws Unreadable {
    requireSize(bytes);
    return DecodedText.of(bytes).text();
  }

  static StringReader reader(byte[] bytes) throws Unreadable {
    return new StringReader(text(bytes));
  }
}
