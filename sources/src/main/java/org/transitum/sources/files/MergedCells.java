package org.transitum.sources.files;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.transitum.sources.files.FileTable.Row;

/**
 * Areas of merged cells, which the workbook reader does not tell. People merge a server's name over
 * the rows of its databases; the value stands in the first cell only and is filled down here. It is
 * not filled to the right: a title over several columns is no header of each.
 */
record MergedCells(List<Area> areas) {
  private static final int MOST_AREAS = 100_000;
  private static final Pattern REFERENCE =
      Pattern.compile("([A-Z]{1,3})(\\d{1,7}):([A-Z]{1,3})(\\d{1,7})");
  private static final XMLInputFactory XML = factory();

  /**
   * @param column of the first cell, from 0
   * @param firstRow as in the file, from 1; {@code lastRow} the last one
   */
  record Area(int column, long firstRow, long lastRow) {}

  private static XMLInputFactory factory() {
    XMLInputFactory factory = XMLInputFactory.newFactory();
    factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    return factory;
  }

  private interface Element {
    void take(XMLStreamReader element);
  }

  /** The merged cells of each sheet, by the sheet's name. */
  static Map<String, MergedCells> read(byte[] workbook) throws IOException {
    Map<String, MergedCells> merged = new HashMap<>();
    try (ZipFile zip = ZipFile.builder().setByteArray(workbook).get()) {
      Map<String, String> parts = new HashMap<>();
      each(
          zip,
          "xl/_rels/workbook.xml.rels",
          "Relationship",
          element ->
              parts.put(
                  element.getAttributeValue(null, "Id"),
                  element.getAttributeValue(null, "Target")));
      Map<String, String> names = new HashMap<>();
      each(
          zip,
          "xl/workbook.xml",
          "sheet",
          element -> {
            for (int i = 0; i < element.getAttributeCount(); i++) {
              if (element.getAttributeLocalName(i).equals("id")) {
                names.put(
                    element.getAttributeValue(null, "name"),
                    parts.getOrDefault(element.getAttributeValue(i), ""));
              }
            }
          });
      for (Map.Entry<String, String> sheet : names.entrySet()) {
        List<Area> areas = new ArrayList<>();
        String part = sheet.getValue();
        each(
            zip,
            part.startsWith("/") ? part.substring(1) : "xl/" + part,
            "mergeCell",
            element -> add(element.getAttributeValue(null, "ref"), areas));
        merged.put(sheet.getKey(), new MergedCells(areas));
      }
    }
    return merged;
  }

  private static void each(ZipFile zip, String part, String name, Element taker)
      throws IOException {
    ZipArchiveEntry entry = zip.getEntry(part);
    if (entry == null) {
      return;
    }
    try (InputStream in = zip.getInputStream(entry)) {
      XMLStreamReader xml = XML.createXMLStreamReader(in);
      while (xml.hasNext()) {
        if (xml.next() == XMLStreamConstants.START_ELEMENT && xml.getLocalName().equals(name)) {
          taker.take(xml);
        }
      }
    } catch (XMLStreamException e) {
      throw new IOException(e);
    }
  }

  private static void add(String reference, List<Area> areas) {
    Matcher matcher = REFERENCE.matcher(String.valueOf(reference));
    if (matcher.matches() && areas.size() < MOST_AREAS) {
      long first = Long.parseLong(matcher.group(2));
      long last = Long.parseLong(matcher.group(4));
      if (last > first) {
        areas.add(new Area(column(matcher.group(1)), first, last));
      }
    }
  }

  private static int column(String letters) {
    int column = 0;
    for (char letter : letters.toCharArray()) {
      column = column * 26 + (letter - 'A' + 1);
    }
    return column - 1;
  }

  /**
   * Fills each area's value into its empty cells below.
   *
   * @param rows with lists of cells that can be changed
   * @return how many areas were filled
   */
  int fill(List<Row> rows) {
    Map<Long, Row> byNumber = new HashMap<>();
    rows.forEach(row -> byNumber.put(row.number(), row));
    int filled = 0;
    for (Area area : areas) {
      Row first = byNumber.get(area.firstRow());
      String value = first == null ? "" : first.cell(area.column());
      if (value.isEmpty()) {
        continue;
      }
      filled++;
      long last = Math.min(area.lastRow(), area.firstRow() + rows.size());
      for (long number = area.firstRow() + 1; number <= last; number++) {
        Row row = byNumber.get(number);
        if (row != null && row.cell(area.column()).isEmpty()) {
          set(row.cells(), area.column(), value);
        }
      }
    }
    return filled;
  }

  private static void set(List<String> cells, int column, String value) {
    while (cells.size() <= column) {
      cells.add("");
    }
    cells.set(column, value);
  }
}
