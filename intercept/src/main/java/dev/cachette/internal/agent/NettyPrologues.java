// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import org.objectweb.asm.Label;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;
import org.objectweb.asm.Type;

/** The prologues of methods of Netty, which return promises. */
final class NettyPrologues {

  private static final String PROMISE = "netty/util/concurrent/Promise";
  private static final String OBJECT = "java/lang/Object";
  private static final String THROWABLE = "java/lang/Throwable";

  private NettyPrologues() {}

  /**
   * {@code var found = CachetteHook.resolution(host); if (found != null) return found instanceof
   * Throwable ? promise.setFailure(found) : promise.setSuccess(found);}.
   *
   * @param descriptor the type of the promise, which differs in every copy of Netty
   * @param all whether a list is needed, else the first address
   */
  static void resolve(MethodVisitor method, String descriptor, boolean all) {
    Argument promise = Argument.of(descriptor, PROMISE);
    Label unknown = new Label();
    Label addresses = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 1);
    Prologues.ask(method, "resolution", "(Ljava/lang/String;)Ljava/lang/Object;");
    method.visitInsn(Opcodes.DUP);
    method.visitJumpInsn(Opcodes.IFNULL, unknown);
    method.visitInsn(Opcodes.DUP);
    method.visitTypeInsn(Opcodes.INSTANCEOF, THROWABLE);
    method.visitJumpInsn(Opcodes.IFEQ, addresses);
    method.visitTypeInsn(Opcodes.CHECKCAST, THROWABLE);
    complete(method, promise, "setFailure", THROWABLE);
    method.visitLabel(addresses);
    method.visitFrame(Opcodes.F_SAME1, 0, null, 1, new Object[] {OBJECT});
    method.visitTypeInsn(Opcodes.CHECKCAST, "[Ljava/net/InetAddress;");
    if (all) {
      method.visitMethodInsn(
          Opcodes.INVOKESTATIC, "java/util/Arrays", "asList", Prologues.AS_LIST, false);
    } else {
      method.visitInsn(Opcodes.ICONST_0);
      method.visitInsn(Opcodes.AALOAD);
    }
    complete(method, promise, "setSuccess", OBJECT);
    method.visitLabel(unknown);
    method.visitFrame(Opcodes.F_SAME1, 0, null, 1, new Object[] {OBJECT});
    method.visitInsn(Opcodes.POP);
  }

  /**
   * {@code var refused = CachetteHook.http3(this.remote); if (refused != null) return
   * promise.setFailure(refused);}.
   */
  static void http3(MethodVisitor method, String className, String descriptor) {
    Argument promise = Argument.of(descriptor, PROMISE);
    Label unknown = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 0);
    method.visitFieldInsn(Opcodes.GETFIELD, className, "remote", "Ljava/net/SocketAddress;");
    Prologues.ask(method, "http3", "(Ljava/net/SocketAddress;)Ljava/lang/Throwable;");
    method.visitInsn(Opcodes.DUP);
    method.visitJumpInsn(Opcodes.IFNULL, unknown);
    complete(method, promise, "setFailure", THROWABLE);
    method.visitLabel(unknown);
    method.visitFrame(Opcodes.F_SAME1, 0, null, 1, new Object[] {THROWABLE});
    method.visitInsn(Opcodes.POP);
  }

  /** As above, with {@code CachetteHook.dnsAnswer(question)}. */
  static void query(MethodVisitor method, String descriptor) {
    Argument promise = Argument.of(descriptor, PROMISE);
    Label unknown = new Label();
    Label response = new Label();
    method.visitVarInsn(Opcodes.ALOAD, Argument.of(descriptor, "DnsQuestion").variable());
    Prologues.ask(method, "dnsAnswer", "(Ljava/lang/Object;)Ljava/lang/Object;");
    method.visitInsn(Opcodes.DUP);
    method.visitJumpInsn(Opcodes.IFNULL, unknown);
    method.visitInsn(Opcodes.DUP);
    method.visitTypeInsn(Opcodes.INSTANCEOF, THROWABLE);
    method.visitJumpInsn(Opcodes.IFEQ, response);
    method.visitTypeInsn(Opcodes.CHECKCAST, THROWABLE);
    complete(method, promise, "setFailure", THROWABLE);
    method.visitLabel(response);
    method.visitFrame(Opcodes.F_SAME1, 0, null, 1, new Object[] {OBJECT});
    complete(method, promise, "setSuccess", OBJECT);
    method.visitLabel(unknown);
    method.visitFrame(Opcodes.F_SAME1, 0, null, 1, new Object[] {OBJECT});
    method.visitInsn(Opcodes.POP);
  }

  /** Emits {@code return promise.name(value)}; the value is on the stack. */
  private static void complete(MethodVisitor method, Argument promise, String name, String type) {
    method.visitVarInsn(Opcodes.ALOAD, promise.variable());
    method.visitInsn(Opcodes.SWAP);
    String descriptor = "(L" + type + ";)L" + promise.type() + ";";
    method.visitMethodInsn(Opcodes.INVOKEINTERFACE, promise.type(), name, descriptor, true);
    method.visitInsn(Opcodes.ARETURN);
  }

  /** A parameter of a method, by the end of the name of its type. */
  private record Argument(int variable, String type) {

    static Argument of(String descriptor, String end) {
      int variable = 1;
      for (Type each : Type.getArgumentTypes(descriptor)) {
        if (each.getSort() == Type.OBJECT && each.getInternalName().endsWith(end)) {
          return new Argument(variable, each.getInternalName());
        }
        variable += each.getSize();
      }
      throw new IllegalArgumentException("no parameter " + end + " in " + descriptor);
    }
  }
}
