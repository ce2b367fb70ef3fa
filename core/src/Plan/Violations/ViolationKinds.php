<?php

declare(strict_types=1);

namespace Octavox\Core\Plan\Violations;

use Octavox\Core\Json\KindMapper;
use Octavox\Core\Plan\Violation;

/** The registry: the word that stands for each in JSON. */
final class ViolationKinds
{
    private const BY_WORD = [
        'no-format' => NoFormat::class,
        'sound-alone' => SoundAlone::class,
        'picture-left' => PictureLeft::class,
        'other-codec' => OtherCodec::class,
        'no-sound' => NoSound::class,
        'no-track' => NoTrack::class,
        'no-language' => NoLanguage::class,
        'empty-track' => EmptyTrack::class,
        'too-short' => TooShort::class,
        'stopped' => Stopped::class,
        'channels' => Channels::class,
        'no-picture' => NoPicture::class,
        'picture' => Picture::class,
        'video-sound' => VideoSound::class,
        'only-kept' => OnlyKept::class,
        'silence' => Silence::class,
        'video-pieces' => VideoPieces::class,
        'video-length' => VideoLength::class,
        'not-alike' => NotAlike::class,
        'no-length' => NoLength::class,
        'length-of-pieces' => LengthOfPieces::class,
        'rate-beyond' => RateBeyond::class,
        'rate' => Rate::class,
        'bit-depth' => BitDepth::class,
        'bit-rate' => BitRate::class,
        'variable-rate' => VariableRate::class,
        'rate-mode' => RateMode::class,
        'encoder-setting' => EncoderSetting::class,
        'compression' => Compression::class,
        'name-field' => NameField::class,
    ];

    /** @return KindMapper<Violation> */
    public static function mapper(): KindMapper
    {
        /** @var KindMapper<Violation> $mapper */
        $mapper = new KindMapper(self::BY_WORD);

        return $mapper;
    }
}
