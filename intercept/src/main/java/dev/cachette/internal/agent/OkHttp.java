// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import org.objectweb.asm.ClassReader;
import org.objectweb.asm.ClassVisitor;
import org.objectweb.asm.FieldVisitor;
import org.objectweb.asm.MethodVisitor;
import org.objectweb.asm.Opcodes;

/** The names in OkHttp 4 and 5 that lead from what a thread runs to the call that was made. */
final class OkHttp {

  static final String PACKAGE = "okhttp3/";

  /** A call. */
  static final String CALL = PACKAGE + "internal/connection/RealCall";

  /** A call that a thread of the dispatcher runs; calls that wait are started by other ones. */
  static final String RUNNING_CALL = CALL + "$AsyncCall";

  private static final String OUTER = "this$0";

  private OkHttp() {}

  /** Returns false if a class runs calls, but not in the way that is known. */
  static boolean isAsExpected(String className, byte[] bytes) {
    if (!className.endsWith(RUNNING_CALL)) {
      return true;
    }
    String wanted = "L" + callOf(className) + ";";
    boolean[] found = {false};
    new ClassReader(bytes)
        .accept(
            new ClassVisitor(Opcodes.ASM9) {
              @Override
              public FieldVisitor visitField(
                  int access, String name, String descriptor, String signature, Object value) {
                found[0] |= name.equals(OUTER) && descriptor.equals(wanted);
                return null;
              }
            },
            ClassReader.SKIP_CODE);
    return found[0];
  }

  private static String callOf(String className) {
    return className.substring(0, className.indexOf('$'));
  }

  /** {@code this.this$0}. */
  static void writeCall(String className, MethodVisitor code) {
    code.visitVarInsn(Opcodes.ALOAD, 0);
    code.visitFieldInsn(Opcodes.GETFIELD, className, OUTER, "L" + callOf(className) + ";");
  }
}
