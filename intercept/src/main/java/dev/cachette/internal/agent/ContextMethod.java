// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;

/** A method through which work goes on, with a call of {@code java.net.CachetteContext}. */
final class ContextMethod extends MethodVisitor {

  private static final String CONTEXT = "java/net/CachetteContext";
  private static final String HOOK = "java/net/CachetteHook";
  private static final String INCOMING = "java/net/CachetteIncoming";
  private static final String TIMERS = "java/net/CachetteTimers";

  /** The variable of {@code timedRead} that has the timeout. */
  private static final int TIMEOUT = 5;

  private static final String WITH_OBJECT = "(Ljava/lang/Object;)V";

  /** The operands that the calls need besides the method's own. */
  private static final int MORE_STACK = 3;

  private final ContextPoint point;
  private final String className;
  private final ContextPoint.Hook hook;

  /**
   * Creates it.
   *
   * @param className the name of the class, with slashes
   */
  ContextMethod(ContextPoint point, String className, MethodVisitor next) {
    super(Opcodes.ASM9, next);
    this.className = className;
    this.point = point;
    this.hook = point.hook();
  }

  @Override
  public void visitCode() {
    super.visitCode();
    switch (hook) {
      case WROTE -> tell("wrote", 0);
      case WRITES -> {
        JavaClient.writeCallAndChannel(point.className(), mv);
        call("writes", "(Ljava/lang/Object;Ljava/lang/Object;)V");
      }
      case STREAMS -> {
        JavaClient.writeCallAndChannel(point.className(), mv);
        super.visitVarInsn(Opcodes.ILOAD, 1);
        call("streams", "(Ljava/lang/Object;Ljava/lang/Object;I)V");
      }
      case RUNS_CALL -> {
        OkHttp.writeCall(className, mv);
        call("began", WITH_OBJECT);
      }
      case CONNECTED -> {
        super.visitVarInsn(Opcodes.ALOAD, 0);
        super.visitVarInsn(Opcodes.ILOAD, 2);
        super.visitMethodInsn(
            Opcodes.INVOKESTATIC, HOOK, "connected", "(Ljava/lang/Object;Z)V", false);
      }
      case CAPTURED -> tell("captured", 1);
      case SELECTS -> call("selects", "()V");
      case TIMER -> {
        super.visitVarInsn(Opcodes.ALOAD, 1);
        timers("begins", WITH_OBJECT);
      }
      case READS -> {
        super.visitVarInsn(Opcodes.ALOAD, 0);
        super.visitVarInsn(Opcodes.LLOAD, TIMEOUT);
        timers("reads", "(Ljava/lang/Object;J)V");
      }
      case MADE, TAKEN, RUNS, READ -> {
        // Not at its beginning.
      }
      default -> throw new IllegalArgumentException("no prologue for " + hook);
    }
  }

  @Override
  public void visitInsn(int opcode) {
    if (hook == ContextPoint.Hook.TAKEN && opcode == Opcodes.ARETURN) {
      super.visitInsn(Opcodes.DUP);
      call("taken", WITH_OBJECT);
    } else if (hook == ContextPoint.Hook.MADE && opcode == Opcodes.RETURN) {
      tell("made", 0);
    } else if (hook == ContextPoint.Hook.READS && opcode == Opcodes.IRETURN) {
      super.visitVarInsn(Opcodes.ALOAD, 0);
      timers("read", "(ILjava/lang/Object;)I");
    }
    if (hook == ContextPoint.Hook.READ && opcode == Opcodes.IRETURN) {
      incoming("(ILjava/lang/Object;)I");
    } else if (hook == ContextPoint.Hook.READ && opcode == Opcodes.LRETURN) {
      incoming("(JLjava/lang/Object;)J");
    }
    super.visitInsn(opcode);
  }

  private void incoming(String descriptor) {
    super.visitVarInsn(Opcodes.ALOAD, 0);
    super.visitMethodInsn(Opcodes.INVOKESTATIC, INCOMING, "read", descriptor, false);
  }

  @Override
  public void visitMethodInsn(
      int opcode, String owner, String name, String descriptor, boolean isInterface) {
    boolean runs = hook == ContextPoint.Hook.RUNS && name.equals("run") && descriptor.equals("()V");
    if (runs) {
      super.visitInsn(Opcodes.DUP);
      call("began", WITH_OBJECT);
    }
    super.visitMethodInsn(opcode, owner, name, descriptor, isInterface);
    if (runs) {
      call("done", "()V");
    }
  }

  @Override
  public void visitMaxs(int maxStack, int maxLocals) {
    super.visitMaxs(maxStack + MORE_STACK, maxLocals);
  }

  private void tell(String name, int variable) {
    super.visitVarInsn(Opcodes.ALOAD, variable);
    call(name, WITH_OBJECT);
  }

  private void timers(String name, String descriptor) {
    super.visitMethodInsn(Opcodes.INVOKESTATIC, TIMERS, name, descriptor, false);
  }

  private void call(String name, String descriptor) {
    super.visitMethodInsn(Opcodes.INVOKESTATIC, CONTEXT, name, descriptor, false);
  }
}
