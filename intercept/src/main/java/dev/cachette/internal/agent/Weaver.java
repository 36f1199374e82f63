// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.lang.instrument.ClassFileTransformer;
import java.security.ProtectionDomain;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.objectweb.asm.ClassReader;
import org.objectweb.asm.ClassVisitor;
import org.objectweb.asm.ClassWriter;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;

/** Weaves the hooks into their classes, and tracks which methods of the JDK it found. */
final class Weaver implements ClassFileTransformer {

  private final Set<WeavePoint> missing = Collections.synchronizedSet(WeavePoint.required());
  private volatile @Nullable Throwable failure;

  /**
   * Creates a weaver with all that it needs loaded: loading it while a class is transformed could
   * load a class that is to be woven, for which it would be needed.
   */
  Weaver() {
    load(ContextPoint.class, ContextMethod.class, JavaClient.class, OkHttp.class);
    load(Prologues.class);
    load(NettyPrologues.class, NativeStacks.class);
    load(HookedClass.class, HookedMethod.class, ClassReader.class, ClassWriter.class);
  }

  private static void load(Class<?>... needed) {
    for (Class<?> each : needed) {
      try {
        Class.forName(each.getName(), true, each.getClassLoader());
      } catch (ClassNotFoundException impossible) {
        throw new IllegalStateException(impossible);
      }
    }
  }

  /** Returns null for every other class, which leaves it unchanged. */
  @Override
  public byte @Nullable [] transform(
      @Nullable ClassLoader loader,
      @Nullable String className,
      @Nullable Class<?> redefined,
      @Nullable ProtectionDomain domain,
      byte[] bytes) {
    // Called for every loaded class, so this must be cheap.
    if (className == null) {
      return null;
    }
    NativeStacks.loaded(className);
    if (!WeavePoint.mayBeIn(loader, className)) {
      return null;
    }
    try {
      if (!JavaClient.isAsExpected(className, bytes) || !OkHttp.isAsExpected(className, bytes)) {
        return null;
      }
      return weave(className, bytes);
    } catch (RuntimeException | LinkageError failed) {
      // The JVM would swallow it; the installer checks for it.
      failure = failed;
      return null;
    }
  }

  /** Returns the methods that were not found so far. */
  Set<WeavePoint> missing() {
    return missing;
  }

  Optional<Throwable> failure() {
    return Optional.ofNullable(failure);
  }

  private byte[] weave(String className, byte[] bytes) {
    ClassReader reader = new ClassReader(bytes);
    ClassWriter writer = new ClassWriter(reader, 0);
    reader.accept(new HookedClass(className, writer), 0);
    return writer.toByteArray();
  }

  private final class HookedClass extends ClassVisitor {

    private final String className;
    private final List<WeavePoint> points;
    private final List<ContextPoint> contextPoints;

    HookedClass(String className, ClassWriter next) {
      super(Opcodes.ASM9, next);
      this.className = className;
      this.points = WeavePoint.in(className);
      this.contextPoints = ContextPoint.in(className);
    }

    @Override
    public MethodVisitor visitMethod(
        int access, String name, String descriptor, String signature, String[] exceptions) {
      MethodVisitor method = super.visitMethod(access, name, descriptor, signature, exceptions);
      boolean hasCode = (access & (Opcodes.ACC_ABSTRACT | Opcodes.ACC_NATIVE)) == 0;
      for (WeavePoint point : points) {
        if (hasCode && point.isAt(name, descriptor)) {
          missing.remove(point);
          return new HookedMethod(point, className, descriptor, method);
        }
      }
      for (ContextPoint point : contextPoints) {
        if (hasCode && point.isAt(name, descriptor)) {
          return new ContextMethod(point, className, descriptor, method);
        }
      }
      return method;
    }
  }

  private static final class HookedMethod extends MethodVisitor {

    private final WeavePoint point;
    private final String className;
    private final String descriptor;

    HookedMethod(WeavePoint point, String className, String descriptor, MethodVisitor next) {
      super(Opcodes.ASM9, next);
      this.point = point;
      this.className = className;
      this.descriptor = descriptor;
    }

    @Override
    public void visitCode() {
      super.visitCode();
      Prologues.write(point.hook(), className, descriptor, mv);
    }

    @Override
    public void visitMaxs(int maxStack, int maxLocals) {
      super.visitMaxs(Math.max(maxStack, Prologues.MAX_STACK), maxLocals);
    }
  }
}
