<?php

declare(strict_types=1);

namespace Octavox\Core\Codec;

/** What packets from the midst of a sound need to begin a sound of their own. One object serves one cut. */
interface Cutting
{
    /** @param  int  $samples  that the cut decodes to */
    public function form(SoundForm $form, int $samples): SoundForm;

    /** @param  Packet  $packet  the first that is kept, then the one after it, and so on */
    public function packet(Packet $packet): Packet;
}
