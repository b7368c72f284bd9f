package org.transitum.server.counters;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;

/**
 * A day of values as bytes: the doubles' bytes transposed, so that bytes of equal rank lie
 * together, then deflated. Lossless.
 */
final class ChunkCodec {
  private ChunkCodec() {}

  static byte[] pack(double[] values) {
    int n = values.length;
    byte[] plain = new byte[n * Double.BYTES];
    for (int i = 0; i < n; i++) {
      long bits = Double.doubleToLongBits(values[i]);
      for (int b = 0; b < Double.BYTES; b++) {
        plain[b * n + i] = (byte) (bits >>> (56 - 8 * b));
      }
    }
    Deflater deflater = new Deflater(Deflater.BEST_SPEED);
    try {
      deflater.setInput(plain);
      deflater.finish();
      ByteArrayOutputStream out = new ByteArrayOutputStream(plain.length / 2);
      byte[] buffer = new byte[4096];
      while (!deflater.finished()) {
        out.write(buffer, 0, deflater.deflate(buffer));
      }
      return out.toByteArray();
    } finally {
      deflater.end();
    }
  }

  static double[] unpack(byte[] packed, int count) {
    byte[] plain = new byte[count * Double.BYTES];
    Inflater inflater = new Inflater();
    try {
      inflater.setInput(packed);
      int at = 0;
      while (at < plain.length) {
        int got = inflater.inflate(plain, at, plain.length - at);
        if (got == 0) {
          throw new IllegalStateException("a stored day of samples is cut short");
        }
        at += got;
      }
    } catch (DataFormatException e) {
      throw new IllegalStateException("a stored day of samples is damaged", e);
    } finally {
      inflater.end();
    }
    double[] values = new double[count];
    ByteBuffer number = ByteBuffer.allocate(Double.BYTES);
    for (int i = 0; i < count; i++) {
      for (int b = 0; b < Double.BYTES; b++) {
        number.put(b, plain[b * count + i]);
      }
      values[i] = number.getDouble(0);
    }
    return values;
  }
}
