package org.transitum.server.inventory;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.apache.commons.csv.CSVFormat;
import org.springframework.stereotype.Service;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;

/** What is unknown, and who could answer: a file for each owner that comes back as an inventory. */
@Service
public class QuestionService {
  static final String NOBODY = "";

  private final EstateStore estate;
  private final InventoryService inventory;

  QuestionService(EstateStore estate, InventoryService inventory) {
    this.estate = estate;
    this.inventory = inventory;
  }

  /**
   * @param owner empty for databases that nobody is known to own
   * @param databases that lack something
   * @param gaps values that are wanted
   */
  public record OwnerQuestions(String owner, int databases, int gaps) {}

  public List<OwnerQuestions> owners() {
    Map<String, List<EstateObject>> byOwner = new TreeMap<>();
    withGaps().forEach(d -> byOwner.computeIfAbsent(owner(d), o -> new ArrayList<>()).add(d));
    List<OwnerQuestions> questions = new ArrayList<>();
    byOwner.forEach(
        (owner, databases) ->
            questions.add(
                new OwnerQuestions(
                    owner,
                    databases.size(),
                    databases.stream().mapToInt(d -> inventory.unknown(d).size()).sum())));
    return questions;
  }

  private List<EstateObject> withGaps() {
    return estate.databases().stream().filter(d -> !inventory.unknown(d).isEmpty()).toList();
  }

  private String owner(EstateObject database) {
    return estate.effective(database, Attribute.OWNER).orElse(NOBODY);
  }

  /** The owner's databases with what is known of them, in the format of an inventory file. */
  public String file(String owner) {
    StringBuilder csv = new StringBuilder();
    List<String> header = new ArrayList<>(List.of("instance", "database"));
    InventoryService.NEEDED.forEach(attribute -> header.add(attribute.column()));
    line(csv, header);
    for (EstateObject database : withGaps()) {
      if (owner(database).equals(owner)) {
        int slash = database.key().indexOf('/');
        List<String> cells = new ArrayList<>();
        cells.add(database.key().substring(0, slash));
        cells.add(database.key().substring(slash + 1));
        for (Attribute attribute : InventoryService.NEEDED) {
          cells.add(estate.effective(database, attribute).orElse(""));
        }
        line(csv, cells);
      }
    }
    return csv.toString();
  }

  /** A cell that a spreadsheet would run as a formula gets an apostrophe before it. */
  private static void line(StringBuilder csv, List<String> cells) {
    Object[] safe =
        cells.stream()
            .map(cell -> cell.matches("(?s)[=+\\-@\t\r].*") ? "'" + cell : cell)
            .toArray();
    csv.append(CSVFormat.RFC4180.format(safe)).append("\r\n");
  }
}
