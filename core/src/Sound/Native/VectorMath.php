<?php

declare(strict_types=1);

namespace Octavox\Core\Sound\Native;

/** Arithmetic on whole buffers by the basic linear algebra routines; counts and offsets are in samples. */
final class VectorMath
{
    private const ROW_MAJOR = 101;

    private const NO_TRANSPOSE = 111;

    private const TRANSPOSE = 112;

    private static ?self $one = null;

    private function __construct(private readonly \FFI $library) {}

    /** @throws LibraryMissing */
    public static function get(): self
    {
        return self::$one ??= new self(Library::open('
            void cblas_saxpy(int n, float a, const float *x, int incx, float *y, int incy);
            void cblas_sscal(int n, float a, float *x, int incx);
            size_t cblas_isamax(int n, const float *x, int incx);
            size_t cblas_ismax(int n, const float *x, int incx);
            size_t cblas_ismin(int n, const float *x, int incx);
            float cblas_sdot(int n, const float *x, int incx, const float *y, int incy);
            void cblas_scopy(int n, const float *x, int incx, float *y, int incy);
            void cblas_sgemm(int order, int ta, int tb, int m, int n, int k, float alpha, const float *a, int lda, const float *b,
                int ldb, float beta, float *c, int ldc);
        ', ['libopenblas.so.0'], 'libopenblas0-pthread'));
    }

    /** to += gain × from */
    public function add(FloatBuffer $to, int $toOffset, FloatBuffer $from, int $fromOffset, int $count, float $gain): void
    {
        $this->library->cblas_saxpy($count, $gain, $from->at($fromOffset), 1, $to->at($toOffset), 1);
    }

    /** Copies $count samples that stand $fromStride apart to places $toStride apart: channels out of frames and into them. */
    public function spread(FloatBuffer $from, int $fromOffset, int $fromStride, FloatBuffer $to, int $toOffset, int $toStride,
        int $count): void
    {
        if ($count > 0) {
            $this->copy($from->at($fromOffset), $fromStride, $to->at($toOffset), $toStride, $count);
        }
    }

    /** The same from pointer to pointer. */
    public function copy(\FFI\CData $from, int $fromStride, \FFI\CData $to, int $toStride, int $count): void
    {
        $this->library->cblas_scopy($count, $from, $fromStride, $to, $toStride);
    }

    public function scale(FloatBuffer $buffer, int $offset, int $count, float $gain): void
    {
        $this->library->cblas_sscal($count, $gain, $buffer->at($offset), 1);
    }

    /** Largest absolute value among $count samples that stand $stride apart. */
    public function peak(FloatBuffer $buffer, int $offset, int $count, int $stride = 1): float
    {
        if ($count === 0) {
            return 0.0;
        }
        $index = $this->library->cblas_isamax($count, $buffer->at($offset), $stride);

        return abs((float) $buffer->data[$offset + $index * $stride]);
    }

    /**
     * Lowest and highest value of every so many samples of several signals.
     *
     * @param  list<FloatBuffer>  $signals  of $count samples each
     * @return list<float> for each step, for each signal, the lowest, then the highest
     */
    public function extremes(array $signals, int $count, int $step): array
    {
        $library = $this->library;
        $begins = array_map(fn (FloatBuffer $signal): \FFI\CData => $signal->at(0), $signals);
        $values = [];
        for ($from = 0; $from < $count; $from += $step) {
            $length = min($step, $count - $from);
            foreach ($begins as $begin) {
                $first = $begin + $from;
                $values[] = (float) $first[$library->cblas_ismin($length, $first, 1)];
                $values[] = (float) $first[$library->cblas_ismax($length, $first, 1)];
            }
        }

        return $values;
    }

    /**
     * c = a × b, or c += a × b where $adds: b is stored turned ($columns rows, each as long as one of a), c has a row of $columns numbers
     * for each of a.
     */
    public function multiply(Rows $a, FloatBuffer $b, FloatBuffer $c, int $cOffset, int $columns, bool $adds = false): void
    {
        $this->library->cblas_sgemm(self::ROW_MAJOR, self::NO_TRANSPOSE, self::TRANSPOSE, $a->count, $columns, $a->length, 1.0,
            $a->buffer->at($a->offset), $a->stride, $b->data, $a->length, $adds ? 1.0 : 0.0, $c->at($cOffset), $columns);
    }

    /** Sum of squares of $count samples that stand $stride apart. */
    public function energy(FloatBuffer $buffer, int $offset, int $count, int $stride = 1): float
    {
        return $count === 0 ? 0.0 : (float) $this->library->cblas_sdot($count, $buffer->at($offset), $stride, $buffer->at($offset),
            $stride);
    }

    /** Sum of the products of two signals. */
    public function product(FloatBuffer $a, int $aOffset, int $aStride, FloatBuffer $b, int $bOffset, int $bStride, int $count): float
    {
        return $count === 0 ? 0.0 : (float) $this->library->cblas_sdot($count, $a->at($aOffset), $aStride, $b->at($bOffset), $bStride);
    }

    /**
     * Mixes interleaved frames: each frame's $outputs samples are the gains applied to its $inputs samples.
     *
     * @param  FloatBuffer  $gains  $outputs rows of $inputs gains
     */
    public function mix(FloatBuffer $from, FloatBuffer $to, int $frames, FloatBuffer $gains, int $inputs, int $outputs): void
    {
        $this->library->cblas_sgemm(self::ROW_MAJOR, self::NO_TRANSPOSE, self::TRANSPOSE, $frames, $outputs, $inputs, 1.0, $from->data,
            $inputs, $gains->data, $inputs, 0.0, $to->data, $outputs);
    }
}
