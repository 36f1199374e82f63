// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.objectweb.asm.ClassReader;
import org.objectweb.asm.ClassVisitor;
import org.objectweb.asm.FieldVisitor;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;

/**
 * The internals of {@code java.net.http}, the same from 17 to 25, and the check that they are as
 * the hooks need them: a wrong guess would break calls, where without the hooks less is known about
 * them.
 */
final class JavaClient {

  private static final String PACKAGE = "jdk/internal/net/http/";

  /** A call. Made by its caller, where the two below may be made by a thread of the client. */
  static final String CALL = PACKAGE + "HttpRequestImpl";

  /** A call on an HTTP/1.1 connection. */
  static final String REQUEST = PACKAGE + "Http1Request";

  /** A call on an HTTP/2 connection. */
  static final String STREAM = PACKAGE + "Stream";

  private static final String HTTP_2_CONNECTION = PACKAGE + "Http2Connection";
  private static final String CONNECTION = PACKAGE + "HttpConnection";
  private static final String CHANNEL = "()Ljava/nio/channels/SocketChannel;";

  /** The fields that lead to the connection. */
  private static final Map<String, List<Field>> PATHS =
      Map.of(
          REQUEST,
          List.of(new Field(REQUEST, "connection", CONNECTION)),
          STREAM,
          List.of(
              new Field(STREAM, "connection", HTTP_2_CONNECTION),
              new Field(HTTP_2_CONNECTION, "connection", CONNECTION)));

  private JavaClient() {}

  private record Field(String owner, String name, String type) {

    String descriptor() {
      return "L" + type + ";";
    }

    void write(MethodVisitor code) {
      code.visitFieldInsn(Opcodes.GETFIELD, owner, name, descriptor());
    }
  }

  /** Returns false if a class leads to a connection, but not in the way that is known. */
  static boolean isAsExpected(String className, byte[] bytes) {
    List<Field> path = PATHS.get(className);
    return path == null
        || hasMember(bytes, "request" + new Field(className, "request", CALL).descriptor())
            && path.stream().allMatch(field -> isThere(field, className, bytes))
            && bytesOf(CONNECTION).filter(it -> hasMember(it, "channel" + CHANNEL)).isPresent();
  }

  private static boolean isThere(Field field, String className, byte[] bytes) {
    return (field.owner().equals(className) ? Optional.of(bytes) : bytesOf(field.owner()))
        .filter(it -> hasMember(it, field.name() + field.descriptor()))
        .isPresent();
  }

  /** {@code this.request, this.connection.channel()}. */
  static void writeCallAndChannel(String className, MethodVisitor code) {
    code.visitVarInsn(Opcodes.ALOAD, 0);
    new Field(className, "request", CALL).write(code);
    code.visitVarInsn(Opcodes.ALOAD, 0);
    PATHS.get(className).forEach(field -> field.write(code));
    code.visitMethodInsn(Opcodes.INVOKEVIRTUAL, CONNECTION, "channel", CHANNEL, false);
  }

  private static Optional<byte[]> bytesOf(String className) {
    return ModuleLayer.boot()
        .findModule("java.net.http")
        .flatMap(
            module -> {
              try (InputStream in = module.getResourceAsStream(className + ".class")) {
                return Optional.ofNullable(in == null ? null : in.readAllBytes());
              } catch (IOException unreadable) {
                return Optional.empty();
              }
            });
  }

  /** Returns true if a class has a field or method with this name and descriptor. */
  private static boolean hasMember(byte[] bytes, String wanted) {
    boolean[] found = {false};
    new ClassReader(bytes)
        .accept(
            new ClassVisitor(Opcodes.ASM9) {
              @Override
              public FieldVisitor visitField(
                  int access, String name, String descriptor, String signature, Object value) {
                found[0] |= (name + descriptor).equals(wanted);
                return null;
              }

              @Override
              public MethodVisitor visitMethod(
                  int access, String name, String descriptor, String signature, String[] thrown) {
                found[0] |= (name + descriptor).equals(wanted);
                return null;
              }
            },
            ClassReader.SKIP_CODE);
    return found[0];
  }
}
