// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import org.objectweb.asm.Label;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;

/** The bytecode that calls {@link HookHolder}'s class, one kind per hook. */
final class Prologues {

  /** The maximum operand stack of these prologues. */
  static final int MAX_STACK = 4;

  private static final String TRUSTS =
      "([Ljava/security/cert/X509Certificate;Ljava/lang/Object;Z)Z";
  static final String AS_LIST = "([Ljava/lang/Object;)Ljava/util/List;";

  private static final String HOOK = "java/net/CachetteHook";

  private Prologues() {}

  /**
   * Writes a prologue.
   *
   * @param className the class of the method, with slashes
   * @param descriptor the parameters of the method
   */
  static void write(
      WeavePoint.Hook hook, String className, String descriptor, MethodVisitor method) {
    switch (hook) {
      case CONNECT -> connect(method, 0, 1);
      case CONNECT_CHANNEL -> connect(method, 0, 2);
      case RESOLVE -> resolve(method);
      case RESOLVE_PROMISE -> NettyPrologues.resolve(method, descriptor, false);
      case RESOLVE_PROMISE_OF_ALL -> NettyPrologues.resolve(method, descriptor, true);
      case TRUST -> trust(method);
      case DATAGRAM -> {
        method.visitVarInsn(Opcodes.ALOAD, 2);
        ask(method, "datagram", "(Ljava/net/SocketAddress;)V");
      }
      case HTTP_3 -> NettyPrologues.http3(method, className, descriptor);
      case DNS_QUERY -> NettyPrologues.query(method, descriptor);
      case TRUST_OF_BOUNCY_CASTLE -> trustOfBouncyCastle(method);
      case TRUST_OF_CONSCRYPT -> trustOfConscrypt(method);
      default -> throw new IllegalArgumentException("no prologue for " + hook);
    }
  }

  /** {@code remote = CachetteHook.connect(this, remote);}. */
  private static void connect(MethodVisitor method, int socket, int remote) {
    method.visitVarInsn(Opcodes.ALOAD, socket);
    method.visitVarInsn(Opcodes.ALOAD, remote);
    ask(method, "connect", "(Ljava/lang/Object;Ljava/net/SocketAddress;)Ljava/net/SocketAddress;");
    method.visitVarInsn(Opcodes.ASTORE, remote);
  }

  /** {@code var found = CachetteHook.resolve(host); if (found != null) return found;}. */
  private static void resolve(MethodVisitor method) {
    Label unknown = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 0);
    ask(method, "resolve", "(Ljava/lang/String;)[Ljava/net/InetAddress;");
    method.visitInsn(Opcodes.DUP);
    method.visitJumpInsn(Opcodes.IFNULL, unknown);
    method.visitInsn(Opcodes.ARETURN);
    method.visitLabel(unknown);
    method.visitFrame(Opcodes.F_SAME1, 0, null, 1, new Object[] {"[Ljava/net/InetAddress;"});
    method.visitInsn(Opcodes.POP);
  }

  /** {@code if (CachetteHook.trusts(chain, connection, ofClient)) return;}. */
  private static void trust(MethodVisitor method) {
    Label unknown = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 1);
    method.visitVarInsn(Opcodes.ALOAD, 3);
    method.visitVarInsn(Opcodes.ILOAD, 4);
    ask(method, "trusts", TRUSTS);
    method.visitJumpInsn(Opcodes.IFEQ, unknown);
    method.visitInsn(Opcodes.RETURN);
    goOn(method, unknown);
  }

  /** {@code if (CachetteHook.trusts(chain, connection, !ofServer)) return chain;}. */
  private static void trustOfBouncyCastle(MethodVisitor method) {
    Label unknown = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 1);
    method.visitVarInsn(Opcodes.ALOAD, 3);
    method.visitVarInsn(Opcodes.ILOAD, 4);
    method.visitInsn(Opcodes.ICONST_1);
    method.visitInsn(Opcodes.IXOR);
    ask(method, "trusts", TRUSTS);
    method.visitJumpInsn(Opcodes.IFEQ, unknown);
    method.visitVarInsn(Opcodes.ALOAD, 1);
    method.visitInsn(Opcodes.ARETURN);
    goOn(method, unknown);
  }

  /** {@code if (CachetteHook.trusts(chain, null, ofClient)) return Arrays.asList(chain);}. */
  private static void trustOfConscrypt(MethodVisitor method) {
    Label unknown = new Label();
    method.visitVarInsn(Opcodes.ALOAD, 1);
    method.visitInsn(Opcodes.ACONST_NULL);
    method.visitVarInsn(Opcodes.ILOAD, 6);
    ask(method, "trusts", TRUSTS);
    method.visitJumpInsn(Opcodes.IFEQ, unknown);
    method.visitVarInsn(Opcodes.ALOAD, 1);
    method.visitMethodInsn(Opcodes.INVOKESTATIC, "java/util/Arrays", "asList", AS_LIST, false);
    method.visitInsn(Opcodes.ARETURN);
    goOn(method, unknown);
  }

  private static void goOn(MethodVisitor method, Label label) {
    method.visitLabel(label);
    method.visitFrame(Opcodes.F_SAME, 0, null, 0, null);
    // Separates this frame from one at the beginning of the method.
    method.visitInsn(Opcodes.NOP);
  }

  /** Calls the hook. */
  static void ask(MethodVisitor method, String name, String descriptor) {
    method.visitMethodInsn(Opcodes.INVOKESTATIC, HOOK, name, descriptor, false);
  }
}
