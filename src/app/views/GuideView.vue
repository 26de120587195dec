<script setup lang="ts">
import SiteHead from '../panels/SiteHead.vue';

const STEPS = [
  [
    'Start',
    'Make a project, or open the demo. Everything stays in this browser; there is no account and nothing leaves your machine.',
  ],
  [
    'Gather',
    'Drop clips, stills and sound onto the bench, or take something from the Library tab. Each shows its size, rate and length.',
  ],
  [
    'Make a shot',
    'Give it a size, a frame rate and a length. If your first clip differs, you are asked which of the two should follow.',
  ],
  [
    'Stack',
    'Drag stock onto the viewer or the time panel. The top row lies on top of the picture. Drag the dots at the left of a row to reorder, a bar’s folded corner to fade; its other button lists more ways to begin and end. What no camera gave, such as a title or a lower third, is made by the button under the stock; a title is typed where it stands, by a double click on it. Whatever you wish for, Ctrl+K finds it.',
  ],
  [
    'Place',
    'Choose Place at the end of the passes line. Drag the layer on the picture, or type exact numbers: 1920/2, +40, 50%.',
  ],
  [
    'Key',
    'Press E, then click on the green, or choose Find the screen. Look at the Matte view: white is solid, black is clear. Layer alone shows it on grey, black or white; Edge at 200 % goes round its border.',
  ],
  [
    'Mask',
    'Press A and add a mask: click a path on the picture, paint, or draw strokes over what to keep and what to drop. Cut the layer by it, or give any pass an area. Step on and move the path: each move makes a keyframe.',
  ],
  [
    'Track',
    'Press T and add a track: draw its pattern over a spot, run it both ways, and drag the point on frames where it is wrong. Then let a layer, a mask or a pass follow it, keep it sharp while the rest goes soft, or steady the picture by it.',
  ],
  [
    'Touch up',
    'Press G for Adjust. Every pass shows the picture after it, so you see what each one took off. Blur the ground a little and the subject stands out.',
  ],
  [
    'Animate',
    'The peg beside a value makes a keyframe; from then on, changing it elsewhere makes another. Open a row with its arrow to see its course; drag its lower edge, or press C, and it grows into a curve with numbers and handles. Arrow keys move a keyframe or handle that has the focus. On the picture the way is a dotted line with handles to bend it.',
  ],
  [
    'Time',
    'S splits at the playhead, Z and X trim, N sets a marker, I and O say what plays. Source has speed, reverse and freeze; keyframes of speed make a ramp.',
  ],
  ['Compare', 'Before | After draws the picture without and with the chosen pass, with a divider to drag.'],
  [
    'Watch',
    'Space plays. The line over the rows says how many frames are ready and whether any were dropped; a smaller preview scale is faster.',
  ],
  [
    'Render',
    'Choose Render for a WebM or MP4 file, or this frame as PNG. The file is opened again and checked before it counts as done.',
  ],
] as const;
</script>

<template>
  <SiteHead>
    <main class="page">
      <h1>From footage to file</h1>
      <ol>
        <li v-for="[name, text] in STEPS" :key="name">
          <h2>{{ name }}</h2>
          <p>{{ text }}</p>
        </li>
      </ol>
      <p class="dim">
        On the bench, press <kbd class="mono">?</kbd> for all shortcuts and <kbd class="mono">Ctrl+K</kbd> to search.
      </p>
    </main>
  </SiteHead>
</template>

<style scoped>
.page {
  max-width: 760px;
  margin: 0 auto;
  padding: 28px 24px 48px;
}
h1 {
  margin-bottom: 16px;
  font-size: 1.375rem;
  font-weight: 650;
}
ol {
  padding-left: 24px;
}
li {
  padding: 8px 0 8px 8px;
}
li::marker {
  color: var(--brass);
  font-family: 'JetBrains Mono Variable', monospace;
}
h2 {
  font-size: 0.9375rem;
  font-weight: 600;
}
p {
  line-height: 1.5;
}
</style>
