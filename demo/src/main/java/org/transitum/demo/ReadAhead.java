package org.transitum.demo;

import java.io.IOException;
import java.io.InputStream;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;

/** Fills blocks of a stream on a thread of its own, a few ahead of who reads them. */
final class ReadAhead extends InputStream {
  private static final int BLOCK = 1 << 16;
  private static final int BLOCKS = 16;
  private static final byte[] END = {};

  private final BlockingQueue<byte[]> blocks = new ArrayBlockingQueue<>(BLOCKS);
  private final Thread filler;
  private byte[] block = {};
  private int at;
  private boolean ended;
  private volatile boolean closed;

  ReadAhead(InputStream source) {
    filler = new Thread(() -> fill(source), "demo-counters");
    filler.setDaemon(true);
    filler.start();
  }

  private void fill(InputStream source) {
    try (source) {
      byte[] next = source.readNBytes(BLOCK);
      while (next.length > 0 && !closed) {
        put(next);
        next = source.readNBytes(BLOCK);
      }
      put(END);
    } catch (IOException | InterruptedException e) {
      closed = true;
    }
  }

  private void put(byte[] next) throws InterruptedException {
    while (!closed && !blocks.offer(next, 1, TimeUnit.SECONDS)) {
      // the reader is slower; wait for room unless it has gone
    }
  }

  @Override
  public int read() throws IOException {
    return ready() ? block[at++] & 0xFF : -1;
  }

  @Override
  public int read(byte[] bytes, int offset, int length) throws IOException {
    if (!ready()) {
      return -1;
    }
    int count = Math.min(length, block.length - at);
    System.arraycopy(block, at, bytes, offset, count);
    at += count;
    return count;
  }

  private boolean ready() throws IOException {
    if (at < block.length) {
      return true;
    }
    if (ended) {
      return false;
    }
    try {
      block = blocks.take();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted while reading", e);
    }
    at = 0;
    ended = block.length == 0;
    return !ended;
  }

  @Override
  public void close() {
    closed = true;
    blocks.clear();
  }
}
