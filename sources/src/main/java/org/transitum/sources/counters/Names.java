package org.transitum.sources.counters;

import java.util.Arrays;
import java.util.SplittableRandom;

/**
 * Names that come again and again, numbered from 0 in the order they came first. One that came
 * before is found from the parser's buffer without making a string. An open hash table with linear
 * probing; the hash is seeded, so that nobody can write names that collide.
 */
final class Names {
  /** What {@link #number} gives where there are too many. */
  static final int TOO_MANY = -1;

  private final int most;
  private final int seed = new SplittableRandom().nextInt() | 1;
  private int[] slots = new int[256];
  private int[] hashes = new int[128];
  private char[][] written = new char[128][];
  private String[] texts = new String[128];
  private int count;
  private int last;

  /**
   * @param most how many different names are kept
   */
  Names(int most) {
    this.most = most;
  }

  /** The number of the name between two places of a buffer, without spaces around it. */
  int number(char[] buffer, int offset, int length) {
    int from = offset;
    int to = offset + length;
    while (from < to && Character.isWhitespace(buffer[from])) {
      from++;
    }
    while (from < to && Character.isWhitespace(buffer[to - 1])) {
      to--;
    }
    if (count > 0 && is(last, buffer, from, to)) {
      return last;
    }
    int hash = seed;
    for (int i = from; i < to; i++) {
      hash = (hash ^ buffer[i]) * 0x9E3779B1;
      hash ^= hash >>> 15;
    }
    int slot = hash & slots.length - 1;
    while (slots[slot] != 0) {
      int number = slots[slot] - 1;
      if (hashes[number] == hash && is(number, buffer, from, to)) {
        last = number;
        return number;
      }
      slot = slot + 1 & slots.length - 1;
    }
    return count < most ? add(hash, Arrays.copyOfRange(buffer, from, to)) : TOO_MANY;
  }

  private boolean is(int number, char[] buffer, int from, int to) {
    char[] name = written[number];
    return name.length == to - from && Arrays.equals(name, 0, name.length, buffer, from, to);
  }

  private int add(int hash, char[] name) {
    if (count == written.length) {
      grow();
    }
    written[count] = name;
    texts[count] = new String(name);
    hashes[count] = hash;
    put(hash, count);
    last = count;
    return count++;
  }

  private void grow() {
    int room = 2 * written.length;
    written = Arrays.copyOf(written, room);
    texts = Arrays.copyOf(texts, room);
    hashes = Arrays.copyOf(hashes, room);
    slots = new int[2 * room];
    for (int number = 0; number < count; number++) {
      put(hashes[number], number);
    }
  }

  private void put(int hash, int number) {
    int slot = hash & slots.length - 1;
    while (slots[slot] != 0) {
      slot = slot + 1 & slots.length - 1;
    }
    slots[slot] = number + 1;
  }

  /** The name with a number that {@link #number} gave. */
  String text(int number) {
    return texts[number];
  }
}
