package dev.cachette.internal.agent;

import java.io.IOException;
import java.io.InputStream;
import java.util.Optional;
import org.objectweb.asm.ClassReader;
import org.objectweb.asm.ClassVisitor;
import org.objectweb.asm.FieldVisitor;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;

/**
 * Checks that the internals of {@code java.net.http} are as the hook needs them: a wrong guess
 * would break calls, where without the hook less is known about them.
 */
final class JavaClient {

  private static final String CHANNEL = "channel()Ljava/nio/channels/SocketChannel;";

  private JavaClient() {}

  /** Returns true if a request has a connection, and that a channel. */
  static boolean isAsExpected(byte[] request) {
    return hasMember(request, "connectionL" + ContextPoint.CONNECTION + ";")
        && bytesOf(ContextPoint.CONNECTION).filter(bytes -> hasMember(bytes, CHANNEL)).isPresent();
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
