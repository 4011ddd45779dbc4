<script lang="ts">
  import { goto } from '$app/navigation';
  import SignIn from '../SignIn.svelte';
</script>

<h1>Sign in as an owner</h1>
<p class="soft">For devices and the account. Selling needs none of it.</p>
<SignIn onSignedIn={() => goto('/account')} />
<p class="soft">No account yet? <a class="plain" href="/sign-up">Begin with your own stall</a>.</p>
