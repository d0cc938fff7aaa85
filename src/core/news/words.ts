/** What a registrar or marketplace tells by mail. */
export const NEWS_KINDS = [
  'transfer asked',
  'charge failed',
  'confirm address',
  'sold',
  'renewed',
  'renewal ahead',
  'other',
] as const;
export type NewsKind = (typeof NEWS_KINDS)[number];

/**
 * By which words each kind is told, in the languages of the headings of lists: English, German, French, Spanish, Italian, Dutch,
 * Portuguese, Polish, Swedish, Turkish, Japanese. Written for lower case. The kinds are tried in their order: a failed charge speaks of
 * the renewal too.
 */
const WORDS: Readonly<Record<Exclude<NewsKind, 'other'>, readonly string[]>> = {
  'transfer asked': [
    'transfer request|request(ed)? (to|a) transfer|transfer away|transfer out|outgoing transfer|asked (for|us) (a|to) transfer',
    'transferanfrage|transferantrag|anbieterwechsel|transfer[^\\n]{0,40}(beantragt|angefragt)|umzugsantrag',
    'demande de transfert|transfert sortant|transfert[^\\n]{0,30}demandé',
    'solicitud de transferencia|transferencia saliente|solicitud de traslado',
    'richiesta di trasferimento|trasferimento in uscita',
    'verhuisverzoek|transferverzoek|verzoek (tot|om)[^\\n]{0,20}(verhuiz|overdracht|transfer)',
    'pedido de transferência|transferência de saída',
    '(wniosek|prośba|prośbę|żądanie) o (transfer|przeniesienie)|transfer wychodzący',
    'begäran om (flytt|överföring|överflyttning)|flyttbegäran|överföringsbegäran',
    'transfer talebi|transfer isteği',
    '移管(申請|依頼|リクエスト|手続き)',
  ],
  'charge failed': [
    '(payment|charge|renewal)[^\\n]{0,40}(failed|declined|did not go through)|(failed|declined) (payment|charge)|could not (be )?(charged?|renewed?|take)|unable to (charge|renew|take)|was declined',
    '(zahlung|abbuchung|verlängerung)[^\\n]{0,60}(fehlgeschlagen|abgelehnt)|konnte nicht (abgebucht|belastet|verlängert|eingezogen)|nicht abgebucht werden',
    "(paiement|prélèvement|renouvellement)[^\\n]{0,60}(échoué|échec|refusé)|(échec|refus) d[ue][^\\n]{0,20}(paiement|prélèvement|renouvellement)|n[’']a (pas pu|pu)",
    '(pago|cobro|renovación)[^\\n]{0,60}(fallido|rechazad|ha fallado|falló)|no (se ha podido|hemos podido|pudimos)[^\\n]{0,30}(cobrar|renovar)',
    '(pagamento|addebito|rinnovo)[^\\n]{0,60}(non riuscito|rifiutat|fallit)|non è stato possibile (addebitare|rinnovare)',
    '(betaling|incasso|afschrijving|verlenging)[^\\n]{0,60}(mislukt|geweigerd)|(kon|konden)[^\\n]{0,40} niet (worden )?(afgeschreven|verlengd|geïncasseerd|incasseren)',
    '(pagamento|cobrança|renovação)[^\\n]{0,60}(falhou|recusad)|não foi possível (cobrar|renovar|debitar)|não conseguimos (cobrar|renovar)',
    '(płatnoś|opłat|odnowieni)[^\\n]{0,60}(nie powiod|odrzucon)|nie udało się (pobrać|odnowić|obciążyć)',
    '(betalning|debitering|förnyelse)[^\\n]{0,60}(misslyckades|nekades)|kunde inte (debitera|förnya|dra)',
    '(ödeme|tahsilat|yenileme)[^\\n]{0,60}(başarısız|reddedildi|alınamadı|yapılamadı)|tahsil edilemedi',
    '(決済|お支払い|更新|引き落とし)[^\\n]{0,30}(失敗|できませんでした|エラー)',
  ],
  'confirm address': [
    '(verify|confirm|validate) (your|the|this)[^\\n]{0,20}(e-?mail|contact|address)|(e-?mail|address) verification',
    '(bestätigen|verifizieren) sie (bitte )?(ihre|die|diese)[^\\n]{0,20}(e-?mail|adresse)|e-?mail-adresse (bitte )?bestätigen|bestätigung ihrer e-?mail',
    "(confirmez|vérifiez|validez|confirmer|vérifier|valider)[^\\n]{0,12}(votre|l[’'])[^\\n]{0,10}(adresse|e-?mail)",
    '(confirme|verifique|valide|confirmar|verificar)[^\\n]{0,6} (su|la|tu) (dirección|correo)',
    '(conferm\\w+|verific\\w+)[^\\n]{0,20}(indirizzo|e-?mail)',
    '(bevestig|verifieer)[^\\n]{0,6} (uw|je|het|dit)[^\\n]{0,10}(e-?mail|adres)',
    '(confirme|verifique|valide)[^\\n]{0,6} o (seu )?(endereço|e-?mail)',
    'potwierdź (swój |ten )?adres|potwierdzenie adresu|weryfikacja adresu',
    '(bekräfta|verifiera) (din|er|denna)[^\\n]{0,10}(e-?post|adress)',
    'e-?posta adresini(zi)? (doğrula|onayla)',
    'メールアドレスの?(ご)?(確認|認証)',
  ],
  sold: [
    '(has been|was|is) sold|sold for|sale (is )?(complete|agreed)',
    '(wurde|ist) verkauft|verkauft für|verkauf abgeschlossen',
    'a été vendu|est vendu|vendu pour|vente conclue',
    '(se ha|ha sido) vendido|vendido por|venta cerrada',
    '(è stato|risulta) venduto|venduto per|vendita conclusa',
    '(is|werd) verkocht|verkocht voor',
    'foi vendido|vendido por',
    'zostało? sprzedan|został(a)? sprzedan|sprzedan[ay] za',
    '(har|är) såld|har sålts|såldes för',
    'satıldı|satışı tamamlandı',
    '(売却|落札)され|売れました',
  ],
  renewed: [
    '(has|have) been renewed|(was|were) renewed|renewal (confirmation|complete|receipt)|successfully renewed|(?<!be )renewed (until|through|for)',
    '(wurde|wurden)[^\\n]{0,60}verlängert|erfolgreich verlängert|verlängerungsbestätigung|bestätigung der verlängerung',
    '(a|ont) été renouvelée?s?|renouvelée?s? jusqu|confirmation (de|du) renouvellement',
    '(se ha|se han) renovado|(ha|han) sido renovad|renovad[oa]s? hasta|confirmación de (la )?renovación',
    '(è|sono) stat[oi] rinnovat|rinnovat[oi] fino|conferma (di|del) rinnovo',
    '(is|zijn|werd)[^\\n]{0,60}verlengd|verlengd tot|bevestiging van (de )?verlenging|verlengingsbevestiging',
    '(foi|foram) renovad|renovad[oa]s? até|confirmação (de|da) renovação',
    'został[ay]? odnowion|zostały odnowion|potwierdzenie odnowienia|odnowion[aoy] do',
    '(har|är) (nu )?förnya(t|ts|d)|förnyad(e)? till|bekräftelse på förnyelse|förnyelsebekräftelse',
    'yenilendi|yenileme onayı',
    '更新(が|は)?(完了|され)(しました|ました|いたしました)?|更新完了',
  ],
  'renewal ahead': [
    'will (be |automatically )?(be )?(automatically )?renewe?d?|renews (automatically|on)|(upcoming|coming) renewal|renewal (reminder|notice)|due for renewal|will be charged',
    'wird[^\\n]{0,60}verlängert|verlängert sich|(anstehende|bevorstehende) verlängerung|wird[^\\n]{0,40}abgebucht',
    'sera[^\\n]{0,40}renouvelé|renouvellement (à venir|prévu|prochain)|sera[^\\n]{0,30}prélevé',
    '(se renovará|será renovado|próxima renovación|renovación próxima)|se cobrará',
    '(verrà|sarà)[^\\n]{0,40}rinnovat|(prossimo|imminente) rinnovo|rinnovo (imminente|in arrivo)|verrà addebitat',
    '(wordt|zal)[^\\n]{0,60}verleng|(aankomende|komende) verlenging|wordt[^\\n]{0,40}afgeschreven',
    '(será|vai ser)[^\\n]{0,40}renovad|(próxima renovação|renovação próxima)|será cobrad',
    'zostanie[^\\n]{0,40}odnowion|nadchodzące odnowienie|zostanie pobran',
    '(kommer att|ska) förny|förnyas (automatiskt|den)|kommande förnyelse|kommer att debiteras',
    'yenilenecek|yaklaşan yenileme|tahsil edilecek',
    '(自動)?更新(予定|され(ます|る予定)|のお知らせ|のご案内)|引き落とし予定',
  ],
};

const PATTERNS = Object.entries(WORDS).map(
  ([kind, words]) => [kind as NewsKind, words.map((one) => new RegExp(one, 'u'))] as const,
);

/** Lower case as the words are written: a dotted I of Turkish is an i, typographic spaces are spaces. */
export const plainWords = (text: string): string =>
  text
    .normalize('NFKC')
    .toLowerCase()
    .replaceAll('\u0307', '')
    .replace(/[\u2019]/g, '’');

/** The kinds of news that a text speaks of, in the order in which they count. */
export function kindsIn(text: string): NewsKind[] {
  const plain = plainWords(text);
  return PATTERNS.flatMap(([kind, patterns]) => (patterns.some((pattern) => pattern.test(plain)) ? [kind] : []));
}
