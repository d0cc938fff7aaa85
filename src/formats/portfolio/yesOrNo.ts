/** Words for yes and no in lists of names, in the languages most used by registrars. */
const YES = new Set(
  `yes y on true 1 enabled active locked auto automatic automatically autorenew private x
   ja an aktiv aktiviert gesperrt automatisch oui activé active verrouillé automatique sí si activado activo bloqueado automático
   sì attivo attivato bloccato automatico aan ingeschakeld actief vergrendeld sim ativo ativado tak włączone włączony aktywne aktywny
   zablokowana automatycznie på aktiverad aktiverat låst automatiskt evet açık aktif etkin kilitli otomatik
   はい 有効 オン 自動 自動更新 ロック中`.split(/\s+/),
);
const NO = new Set(
  `no n off false 0 disabled inactive unlocked manual none expire public -
   nein aus inaktiv deaktiviert entsperrt manuell non désactivé inactif déverrouillé manuel desactivado inactivo desbloqueado
   inattivo disattivato sbloccato manuale nee uit uitgeschakeld inactief handmatig não nao inativo desativado nie wyłączone wyłączony
   nieaktywne ręcznie nej av inaktiverad olåst manuellt hayır hayir kapalı pasif devre-dışı kilitsiz elle
   いいえ 無効 オフ 手動`.split(/\s+/),
);

/** True or false for a word that says so; `null` for any other. */
export function yesOrNo(text: string): boolean | null {
  const word = text.trim().normalize('NFKC').toLowerCase();
  if (YES.has(word)) return true;
  return NO.has(word) ? false : null;
}
