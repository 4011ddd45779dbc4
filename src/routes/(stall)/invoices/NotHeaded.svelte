<p class="sheet">
  Nobody has said yet whom invoices are from and how they are numbered.
  <a class="plain" href="/invoices/heading">Say how they are headed</a>
</p>
