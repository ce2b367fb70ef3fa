<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>{{ $choices->title }}</title>
<style>
body{margin:0;background:{{ $choices->colours['ground'] }};color:{{ $choices->colours['ink'] }};font:16px/1.4 system-ui,sans-serif}
main{max-width:{{ $choices->width }}px;margin:0 auto;padding:12px;box-sizing:border-box}
header{display:flex;gap:12px;align-items:center}
img{width:72px;height:72px;object-fit:cover}
h1{font-size:1.05rem;margin:0}
p{margin:2px 0 0}
button{font:inherit;color:inherit;background:none;border:0;cursor:pointer}
.play{background:{{ $choices->colours['accent'] }};color:{{ $choices->onAccent() }};min-width:88px;min-height:44px;border-radius:4px}
.row{display:flex;gap:10px;align-items:center;margin-top:10px}
input[type=range]{flex:1;min-width:60px;height:44px;margin:0;accent-color:{{ $choices->colours['accent'] }}}
svg{display:block;width:100%;height:44px;margin-top:10px}
svg rect{fill:{{ $choices->colours['ink'] }};opacity:.45}
svg rect.past{fill:{{ $choices->colours['accent'] }};opacity:1}
ol{list-style:none;margin:10px 0 0;padding:0}
li{border-top:1px solid}
li button{width:100%;min-height:44px;text-align:left;padding:4px 2px;display:flex;justify-content:space-between;gap:10px}
li [aria-current=true]{font-weight:700}
:focus-visible{outline:3px solid {{ $choices->colours['accent'] }};outline-offset:2px}
output,.time{font-variant-numeric:tabular-nums}
[hidden]{display:none}
</style>
</head>
<body>
<main>
<header>@if($cover !== '')<img src="{{ $cover }}" alt="">@endif<div><h1 id="title">{{ $choices->title }}</h1><p id="what"></p>
    </div></header>
<noscript>@foreach($sounds as [$sound, $address])<p>{{ $sound->title }}<br><audio controls preload="none"
    src="{{ $address === '' ? $sound->address() : $address }}"></audio></p>@endforeach</noscript>
<div id="player" role="group" aria-labelledby="title" hidden>
<svg id="wave" viewBox="0 0 160 44" preserveAspectRatio="none" aria-hidden="true" hidden></svg>
<div class="row"><button type="button" class="play" id="play">Play</button><label for="place"
    style="position:absolute;left:-9999px">Place in the sound</label><input type="range" id="place" min="0" max="1000" step="1" value="0"
    aria-valuetext="0:00"><output class="time" id="time" for="place">0:00</output></div>
<p id="fault" role="alert" hidden></p>
@if(count($sounds) > 1)<ol id="list">@foreach($sounds as [$sound, $address])<li><button type="button"><span>{{ $sound->title }}</span><span
    class="time">{{ sprintf('%d:%02d', intdiv((int) $sound->seconds, 60), (int) $sound->seconds % 60) }}</span></button></li>
    @endforeach</ol>@endif
</div>
</main>
<script>
(function () {
'use strict';
var sounds = @json($data);
var by = function (id) { return document.getElementById(id); };
function buttons() { return by('list') ? Array.prototype.slice.call(by('list').querySelectorAll('button')) : []; }
var audio = new Audio(), current = -1, seeking = false;
audio.preload = 'metadata';
var clock = function (s) { s = Math.max(0, Math.floor(s || 0)); return Math.floor(s / 60) + ':' + ('0' + s % 60).slice(-2); };
var length = function () { return isFinite(audio.duration) && audio.duration > 0 ? audio.duration : sounds[current].seconds; };
function draw() {
    var wave = sounds[current].wave, svg = by('wave');
    svg.textContent = '';
    svg.toggleAttribute('hidden', wave.length === 0);
    wave.forEach(function (high, index) {
        var bar = document.createElementNS('http://www.w3.org/2000/svg', 'rect'), tall = Math.max(1, high * .44);
        bar.setAttribute('x', index * 160 / wave.length);
        bar.setAttribute('y', 22 - tall / 2);
        bar.setAttribute('width', 110 / wave.length);
        bar.setAttribute('height', tall);
        svg.appendChild(bar);
    });
}
function show() {
    var part = audio.currentTime / length(), text = clock(audio.currentTime) + ' of ' + clock(length());
    if (!seeking) by('place').value = Math.round(1000 * part);
    by('place').setAttribute('aria-valuetext', text);
    by('time').value = clock(audio.currentTime) + ' / ' + clock(length());
    by('play').textContent = audio.paused ? 'Play' : 'Pause';
    Array.prototype.forEach.call(by('wave').childNodes, function (bar, index, all) {
        bar.setAttribute('class', index / all.length < part ? 'past' : '');
    });
}
function choose(index, play) {
    current = index;
    audio.src = sounds[index].src;
    by('what').textContent = [sounds.length > 1 ? sounds[index].title : '', sounds[index].under].filter(Boolean).join(' · ');
    by('fault').hidden = true;
    buttons().forEach(function (button, at) { button.setAttribute('aria-current', at === index ? 'true' : 'false'); });
    draw();
    show();
    if (play) audio.play();
}
by('play').addEventListener('click', function () { if (audio.paused) audio.play(); else audio.pause(); });
by('place').addEventListener('input', function () {
    seeking = true;
    audio.currentTime = by('place').value / 1000 * length();
    seeking = false;
    show();
});
by('wave').addEventListener('click', function (event) {
    var box = by('wave').getBoundingClientRect();
    audio.currentTime = (event.clientX - box.left) / box.width * length();
});
buttons().forEach(function (button, index) { button.addEventListener('click', function () { choose(index, true); }); });
['timeupdate', 'play', 'pause', 'loadedmetadata', 'seeked'].forEach(function (name) { audio.addEventListener(name, show); });
audio.addEventListener('ended', function () { if (current + 1 < sounds.length) choose(current + 1, true); else show(); });
audio.addEventListener('error', function () { by('fault').textContent = 'This sound cannot be played here.'; by('fault').hidden = false; });
by('player').hidden = false;
window.player = audio;
choose(0, false);
}());
</script>
</body>
</html>
