<?php

declare(strict_types=1);

namespace Octavox\Core\Plan;

/** Why something that was asked for is not possible. */
enum ViolationRule: string
{
    case NoFormat = 'no-format';
    case SoundAlone = 'sound-alone';
    case PictureLeft = 'picture-left';
    case OtherCodec = 'other-codec';
    case NoSound = 'no-sound';
    case NoTrack = 'no-track';
    case NoLanguage = 'no-language';
    case EmptyTrack = 'empty-track';
    case TooShort = 'too-short';
    case Stopped = 'stopped';
    case Channels = 'channels';
    case NoPicture = 'no-picture';
    case Picture = 'picture';
    case VideoSound = 'video-sound';
    case OnlyKept = 'only-kept';
    case Silence = 'silence';
    case VideoPieces = 'video-pieces';
    case VideoLength = 'video-length';
    case NotAlike = 'not-alike';
    case NoLength = 'no-length';
    case LengthOfPieces = 'length-of-pieces';
    case RateBeyond = 'rate-beyond';
    case Rate = 'rate';
    case BitDepth = 'bit-depth';
    case BitRate = 'bit-rate';
    case VariableRate = 'variable-rate';
    case RateMode = 'rate-mode';
    case EncoderSetting = 'encoder-setting';
    case Compression = 'compression';
    case NameField = 'name-field';

    /** Whether a value of the format itself was asked for that it does not have, whatever the source is. */
    public function isOfFormat(): bool
    {
        return in_array($this,
            [self::NoFormat, self::SoundAlone, self::PictureLeft, self::OtherCodec, self::VideoLength, self::Rate,
                self::BitDepth, self::BitRate,
                self::VariableRate, self::RateMode, self::EncoderSetting, self::Compression, self::NameField], true);
    }
}
