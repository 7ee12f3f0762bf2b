package ironing.core.loadorder;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.json.JsonReadFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.BooleanNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import ironing.core.game.GameDefinition;
import ironing.core.game.GameDefinition.ListInside;
import ironing.core.loadorder.ListText.Told;
import ironing.core.loadorder.LoadOrder.Entry;
import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.path.PathCase;
import ironing.core.text.JsonPlace;
import ironing.core.text.XmlListPlace;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * A load order inside of a JSON or XML document. Threads: stateless. Cost: linear in the document.
 */
final class ListInDocument {
  // games often take comments in their settings: they are no reason to lose all that stands there
  private static final ObjectMapper JSON =
      JsonMapper.builder()
          .enable(JsonReadFeature.ALLOW_JAVA_COMMENTS, JsonReadFeature.ALLOW_TRAILING_COMMA)
          .build();
  private static final String NAME = "{name}", ON = "{on}";

  private ListInDocument() {}

  static Told read(ListInside list, String text) {
    List<String> remarks = new ArrayList<>();
    List<Wish> wishes = new ArrayList<>();
    Set<String> seen = new HashSet<>();
    int number = 0;
    for (JsonNode item : items(list, text, remarks)) {
      number++;
      Optional<String> name = name(list, item);
      if (name.isEmpty())
        remarks.add("Entry " + number + " is not of its form: " + cut(item) + ".");
      else if (seen.add(PathCase.fold(name.get())))
        wishes.add(new Wish(name.get(), on(list.entry(), item)));
      else
        remarks.add("Entry " + number + " names " + name.get() + " again; its first place counts.");
    }
    return new Told(List.copyOf(wishes), List.copyOf(remarks));
  }

  private static Iterable<JsonNode> items(ListInside list, String text, List<String> remarks) {
    if (list.xml()) return elements(list, text, remarks);
    JsonNode at;
    try {
      at = text.isBlank() ? JsonNodeFactory.instance.objectNode() : JSON.readTree(text);
    } catch (JsonProcessingException e) {
      remarks.add("It is not JSON: " + e.getOriginalMessage() + ".");
      return List.of();
    }
    for (String n : list.at()) at = at.path(n);
    if (at.isArray()) return at;
    if (!at.isMissingNode())
      remarks.add("There is no list at " + String.join(".", list.at()) + ".");
    return List.of();
  }

  /** The elements of a list in XML as an entry of the definition has them. */
  private static List<JsonNode> elements(ListInside list, String text, List<String> remarks) {
    if (text.isBlank()) return List.of();
    try {
      List<JsonNode> items = new ArrayList<>();
      for (XmlListPlace.Element e : XmlListPlace.in(text, list.at()).elements()) {
        ObjectNode item = JsonNodeFactory.instance.objectNode();
        e.attributes().forEach((name, value) -> item.put("@" + name, value));
        items.add(list.entry().isTextual() ? TextNode.valueOf(e.text()) : item);
      }
      return items;
    } catch (JsonPlace.NoPlace e) {
      remarks.add("There is no list: " + e.getMessage() + ".");
      return List.of();
    }
  }

  private static String cut(JsonNode item) {
    String text = item.toString();
    return text.length() <= 60 ? text : text.substring(0, 59) + "…";
  }

  private static Optional<String> name(ListInside list, JsonNode item) {
    return found(list.entry(), item, NAME).filter(JsonNode::isTextual).map(JsonNode::textValue);
  }

  private static boolean on(JsonNode form, JsonNode item) {
    return found(form, item, ON).map(v -> v.asBoolean(true)).orElse(true);
  }

  /** What an entry has where its form has a mark. */
  private static Optional<JsonNode> found(JsonNode form, JsonNode item, String mark) {
    if (form.isTextual())
      return form.textValue().equals(mark) ? Optional.of(item) : Optional.empty();
    for (Map.Entry<String, JsonNode> e : form.properties()) {
      if (!item.has(e.getKey())) continue;
      Optional<JsonNode> inside = found(e.getValue(), item.get(e.getKey()), mark);
      if (inside.isPresent()) return inside;
    }
    return Optional.empty();
  }

  static String write(GameDefinition.ListFile file, LoadOrder order, String before) {
    ListInside list = file.inside().orElseThrow();
    if (list.xml()) return writeXml(file, list, order, before);
    ArrayNode all = JsonNodeFactory.instance.arrayNode();
    for (Entry e : order.entries()) {
      if (e.own() && file.omitOwn()) continue;
      if (e.on() || list.listsOff()) all.add(filled(list.entry(), e.name(), e.on()));
    }
    if (list.keep())
      for (JsonNode item : items(list, before, new ArrayList<>()))
        if (name(list, item).filter(n -> order.position(n) >= 0).isEmpty()) all.add(item);
    try {
      return JsonPlace.put(before, true, list.at(), JsonPlace.canonical(all));
    } catch (JsonPlace.NoPlace e) {
      // what the game itself could not read is no document to keep
      return anew(list, all);
    }
  }

  private static String writeXml(
      GameDefinition.ListFile file, ListInside list, LoadOrder order, String before) {
    String tag = list.at().get(list.at().size() - 1);
    List<String> all = new ArrayList<>();
    for (Entry e : order.entries()) {
      if (e.own() && file.omitOwn()) continue;
      if (e.on() || list.listsOff()) all.add(element(tag, filled(list.entry(), e.name(), e.on())));
    }
    String root = "<" + list.at().get(0) + "/>\n";
    String text = before.isBlank() ? "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n" + root : before;
    try {
      XmlListPlace place = XmlListPlace.in(text, list.at());
      if (list.keep()) {
        List<JsonNode> items = elements(list, text, new ArrayList<>());
        for (int i = 0; i < items.size(); i++)
          if (name(list, items.get(i)).filter(n -> order.position(n) >= 0).isEmpty())
            all.add(place.elements().get(i).written());
      }
      return place.with(all);
    } catch (JsonPlace.NoPlace e) {
      // what the game itself could not read is no document to keep
      return writeXml(file, list, order, root);
    }
  }

  private static String element(String tag, JsonNode entry) {
    if (entry.isTextual()) return XmlListPlace.element(tag, Map.of(), entry.textValue());
    Map<String, String> attributes = new LinkedHashMap<>();
    entry.properties().forEach(e -> attributes.put(e.getKey().substring(1), e.getValue().asText()));
    return XmlListPlace.element(tag, attributes, "");
  }

  private static String anew(ListInside list, ArrayNode all) {
    try {
      return JsonPlace.put("", false, list.at(), JsonPlace.canonical(all));
    } catch (JsonPlace.NoPlace e) {
      throw new IllegalStateException(e);
    }
  }

  private static JsonNode filled(JsonNode form, String name, boolean on) {
    if (form.isTextual()) {
      if (form.textValue().equals(ON)) return BooleanNode.valueOf(on);
      return TextNode.valueOf(form.textValue().replace(NAME, name).replace(ON, String.valueOf(on)));
    }
    if (!form.isObject()) return form;
    ObjectNode filled = JsonNodeFactory.instance.objectNode();
    form.properties().forEach(e -> filled.set(e.getKey(), filled(e.getValue(), name, on)));
    return filled;
  }
}
