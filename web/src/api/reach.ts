import { ref } from 'vue'

/** Whether the site answers. Answers that the device keeps say nothing of that. */
export const reachable = ref(true)
